import { Alert, Modal } from 'antd';

import { SelectField } from '../fields/SelectField.tsx';
import { Switch } from '../fields/Switch.tsx';
import { usePreferences } from '../platform/preferences.tsx';

const SIZES = [100, 112, 125, 150, 175, 200] as const;

/** What the signed-in person likes; each choice holds at once. */
export default function PreferencesDialog({ close }: { readonly close: () => void }) {
  const { clock, order, weekStart, units, theme, contrast, textSize, liked, like, isUnsaved } =
    usePreferences();
  return (
    <Modal open title="Preferences" footer={null} onCancel={close}>
      <div className="preferences stack">
        <Switch
          label="Hours"
          value={clock}
          options={[
            ['12', '5:30 pm'],
            ['24', '17:30'],
          ]}
          pick={(value) => like({ clock: value })}
        />
        <Switch
          label="Dates"
          value={order}
          options={[
            ['day-month', '9 June'],
            ['month-day', 'June 9'],
          ]}
          pick={(value) => like({ dateOrder: value })}
        />
        <Switch
          label="The week begins on"
          value={weekStart}
          options={[
            ['mon', 'Monday'],
            ['sun', 'Sunday'],
          ]}
          pick={(value) => like({ weekStart: value })}
        />
        <Switch
          label="Units, where the house says nothing else"
          value={liked.units ?? units}
          options={[
            ['metric', 'Metres, litres'],
            ['us', 'Feet, gallons'],
          ]}
          pick={(value) => like({ units: value })}
        />
        <Switch
          label="Screen"
          value={theme}
          options={[
            ['day', 'Bright'],
            ['night', 'Dark'],
          ]}
          pick={(value) => like({ theme: value })}
        />
        <Switch
          label="Contrast"
          value={contrast}
          options={[
            ['usual', 'Usual'],
            ['high', 'High'],
          ]}
          pick={(value) => like({ contrast: value })}
        />
        <SelectField
          label="Size of text"
          value={textSize}
          options={SIZES.map((size) => [size, `${size} %`] as const)}
          pick={(value) => like({ textSize: value })}
        />
        {isUnsaved && (
          <Alert
            type="warning"
            showIcon
            title="Not saved: the server did not take the last change. It holds on this device; choose again to send it once more."
          />
        )}
      </div>
    </Modal>
  );
}
