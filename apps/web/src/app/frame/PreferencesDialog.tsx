import { Alert, Modal } from 'antd';

import { SelectField } from '../../shared/fields/SelectField.tsx';
import { Switch } from '../../shared/fields/Switch.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { language, LANGUAGES, say } from '@water-clock/core';
import { LANGUAGE_NAMES } from '@water-clock/words';

const SIZES = [100, 112, 125, 150, 175, 200] as const;

/** A person's preferences; each choice applies at once. */
export default function PreferencesDialog({ close }: { readonly close: () => void }) {
  const { clock, order, weekStart, units, theme, contrast, textSize, liked, like, isUnsaved } =
    usePreferences();
  return (
    <Modal open title={say`Preferences`} footer={null} onCancel={close}>
      <div className="preferences stack">
        <Switch
          label={say`Language`}
          value={liked.language ?? (language() === 'es' ? 'es' : 'en')}
          options={LANGUAGES.map((one) => [one, LANGUAGE_NAMES[one]] as const)}
          pick={(value) => like({ language: value })}
        />
        <Switch
          label={say`Time format`}
          value={clock}
          options={[
            ['12', say`5:30 pm`],
            ['24', '17:30'],
          ]}
          pick={(value) => like({ clock: value })}
        />
        <Switch
          label={say`Date format`}
          value={order}
          options={[
            ['day-month', say`9 June`],
            ['month-day', say`June 9`],
          ]}
          pick={(value) => like({ dateOrder: value })}
        />
        <Switch
          label={say`Week starts on`}
          value={weekStart}
          options={[
            ['mon', say`Monday`],
            ['sun', say`Sunday`],
          ]}
          pick={(value) => like({ weekStart: value })}
        />
        <Switch
          label={say`Units, unless the site has its own`}
          value={liked.units ?? units}
          options={[
            ['metric', say`Metres, litres`],
            ['us', say`Feet, gallons`],
          ]}
          pick={(value) => like({ units: value })}
        />
        <Switch
          label={say`Theme`}
          value={theme}
          options={[
            ['day', say`Light`],
            ['night', say`Dark`],
          ]}
          pick={(value) => like({ theme: value })}
        />
        <Switch
          label={say`Contrast`}
          value={contrast}
          options={[
            ['usual', say`Normal`],
            ['high', say`High`],
          ]}
          pick={(value) => like({ contrast: value })}
        />
        <SelectField
          label={say`Text size`}
          value={textSize}
          options={SIZES.map((size) => [size, `${size} %`] as const)}
          pick={(value) => like({ textSize: value })}
        />
        {isUnsaved && (
          <Alert
            type="warning"
            showIcon
            title={say`Not saved. Your last change applies on this device only. Choose again to retry.`}
          />
        )}
      </div>
    </Modal>
  );
}
