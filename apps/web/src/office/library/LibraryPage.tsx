import { useRef, useState } from 'react';
import { Button } from 'antd';
import { NavLink, useNavigate, useParams, useSearchParams } from 'react-router';
import {
  CLIMATE_FORMAT,
  CLIMATE_VERSION,
  faultLine,
  readClimateText,
  readMinutesTableText,
  readRulesText,
  readTimerKindText,
  RULES_FORMAT,
  RULES_VERSION,
  SHIPPED_MINUTES,
  weatherDayRows,
  weatherMonthRows,
  type ClimateDocument,
  type Outcome,
  type Rules,
  say,
} from '@water-clock/core';
import { usePageTitle } from '../../app/platform/PageHeading.tsx';
import { failureWords, newId, request } from '../../data/api/request.ts';
import { FileButton } from '../../shared/fields/FileButton.tsx';
import { saveCsv } from '../../app/platform/csv.ts';
import { saveJson, textOf } from '../../app/platform/files.ts';
import { Failed, Loading, NotFound } from '../../app/platform/states.tsx';
import { deviceZone } from '../../app/platform/zone.ts';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { loadDays, useTowns } from '../../data/api/weather.ts';
import { ClimateEditor } from './ClimateEditor.tsx';
import { KindEditor } from './KindEditor.tsx';
import { KindQuestions } from './KindQuestions.tsx';
import { MinutesEditor } from './MinutesEditor.tsx';
import {
  useKeepDocument,
  useLibrary,
  type LibraryItem,
  type PagedShelf,
  type Shelves,
} from '../../data/api/library.ts';
import { ReadDocument } from './ReadDocument.tsx';
import { RulesEditor } from './RulesEditor.tsx';
import { SaveBar } from './SaveBar.tsx';
import { useDocument } from './useDocument.ts';
import './library.css';

const SHELVES: readonly (readonly [PagedShelf, string])[] = [
  ['rules', say`Watering rules`],
  ['kinds', say`Timer kinds`],
  ['minutes', say`Minutes`],
  ['climates', say`Weather`],
];
const ENDINGS: Record<PagedShelf, string> = {
  rules: 'rules',
  kinds: 'kind',
  minutes: 'minutes',
  climates: 'climate',
};
const READERS: { readonly [S in PagedShelf]: (text: string) => Outcome<Shelves[S]> } = {
  rules: readRulesText,
  kinds: readTimerKindText,
  minutes: readMinutesTableText,
  climates: readClimateText,
};

const nameOf = (document: Shelves[PagedShelf]): string =>
  'timer' in document ? document.timer.name : document.name;

const newRules = (): Rules => ({
  format: RULES_FORMAT,
  version: RULES_VERSION,
  name: say`New rules`,
  editions: [{ from: `${new Date().getFullYear()}-01-01`, clauses: [{}] }],
});

/** A mild year, to be replaced from a file. */
const newClimate = (): ClimateDocument => ({
  format: CLIMATE_FORMAT,
  version: CLIMATE_VERSION,
  name: say`New place`,
  source: say`to be entered`,
  latitude: 0,
  months: Array.from({ length: 12 }, () => ({ highestCelsius: 22, lowestCelsius: 12, rainMm: 50 })),
});

function Entry({
  shelf,
  item,
  done,
}: {
  readonly shelf: PagedShelf;
  readonly item: LibraryItem<Shelves[PagedShelf]>;
  readonly done: () => void;
}) {
  const now = useCivilNow(deviceZone());
  const draft = useDocument<PagedShelf>(shelf, item);
  const common = { change: draft.change, today: Math.floor(now / 86_400) };
  const { document } = draft;
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  // Read-only first; an open edit stays open.
  if (!search.has('edit'))
    return (
      <>
        <h2>{nameOf(document)}</h2>
        <ReadDocument document={document} today={common.today} />
        <div className="row">
          <Button
            type="primary"
            size="large"
            onClick={() => setSearch({ edit: '' })}
          >{say`Edit`}</Button>
          {'editions' in document && item.version > 0 && (
            <Button
              size="large"
              onClick={() => void navigate(`/replans?rules=${item.id}`)}
            >{say`Sites out of compliance`}</Button>
          )}
          <Button size="large" onClick={done}>{say`Back to the list`}</Button>
        </div>
      </>
    );
  return (
    <>
      <h2>{nameOf(document)}</h2>
      {'editions' in document && <RulesEditor document={document} {...common} />}
      {'timer' in document && <KindEditor document={document} {...common} />}
      {'heads' in document && <MinutesEditor document={document} {...common} />}
      {'latitude' in document && <ClimateEditor document={document} {...common} />}
      <SaveBar draft={draft} done={done} />
    </>
  );
}

/** The towns of the simulated weather, as files. */
function Feed({
  add,
  failed,
}: {
  readonly add: (document: ClimateDocument) => void;
  readonly failed: (error: Error) => void;
}) {
  const towns = useTowns();
  const normalsOf = (id: string) =>
    request<ClimateDocument>('GET', `/api/weather/towns/${id}/normals`);
  if (towns.isError)
    return (
      <Failed what={say`Weather feed`} error={towns.error} retry={() => void towns.refetch()} />
    );
  return (
    <section>
      <h2>{say`Weather feed towns`}</h2>
      <p className="soft">{say`Simulated weather included with Water Clock: invented towns, ten years of daily data.`}</p>
      <ul className="library-list list ruled">
        {(towns.data ?? []).map(({ id, name, region }) => (
          <li key={id} className="row">
            <span>
              <strong>{name}</strong> <span className="soft">{region}</span>
            </span>
            <span className="row near">
              <Button
                size="small"
                onClick={() =>
                  void normalsOf(id)
                    .then((normals) => add({ ...normals, name: say`${name}, our copy` }))
                    .catch(failed)
                }
              >{say`Copy and edit`}</Button>
              <Button
                size="small"
                onClick={() =>
                  void normalsOf(id)
                    .then(({ months }) =>
                      saveCsv(say`${name} months.csv`, weatherMonthRows(months)),
                    )
                    .catch(failed)
                }
              >{say`Months`}</Button>
              <Button
                size="small"
                onClick={() =>
                  void loadDays(id)
                    .then((days) => saveCsv(say`${name} days.csv`, weatherDayRows(days)))
                    .catch(failed)
                }
              >{say`Days`}</Button>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function ShelfList<S extends PagedShelf>({ shelf }: { readonly shelf: S }) {
  const items = useLibrary(shelf);
  const keep = useKeepDocument(shelf);
  const navigate = useNavigate();
  const [faults, setFaults] = useState<readonly string[]>([]);
  const [asking, setAsking] = useState(false);
  /** A repeated request keeps its ids, so that it is done once. */
  const ids = useRef(new Map<string, { readonly target: string; readonly id: string }>());
  if (items.isPending) return <Loading what={say`the library`} />;
  if (items.isError)
    return (
      <Failed what={say`The library`} error={items.error} retry={() => void items.refetch()} />
    );
  const failed = (error: Error) => setFaults([failureWords(error, say`Not saved`)]);
  const idsOf = (what: string) => {
    const own = ids.current.get(what) ?? { target: newId(), id: newId() };
    ids.current.set(what, own);
    return own;
  };
  const add = (document: object) => {
    const what = JSON.stringify(document);
    const { target, id } = idsOf(what);
    keep.mutate(
      { target, id, baseVersion: 0, document },
      {
        onSuccess: () => {
          ids.current.delete(what);
          void navigate(`/library/${shelf}/${target}?edit`);
        },
        onError: failed,
      },
    );
  };
  const takeOut = ({ id: target, version: baseVersion }: LibraryItem<Shelves[S]>) =>
    keep.mutate(
      { target, id: idsOf(`${target} ${baseVersion}`).id, baseVersion, document: null },
      { onError: failed },
    );
  const take = async (file: File) => {
    const text = await textOf(file);
    const read = text === null ? null : READERS[shelf](text);
    if (!read) setFaults([say`${file.name} is too large`]);
    else if (read.ok) add(read.value);
    else setFaults(read.faults.map(faultLine));
  };
  if (asking) return <KindQuestions make={add} leave={() => setAsking(false)} />;
  const make = () => {
    if (shelf === 'kinds') setAsking(true);
    else if (shelf === 'rules') add(newRules());
    else if (shelf === 'minutes') add({ ...SHIPPED_MINUTES, name: say`New table` });
    else add(newClimate());
  };
  return (
    <>
      <div className="row">
        <Button type="primary" size="large" onClick={make}>
          {shelf === 'kinds' ? say`Create from questions` : say`New`}
        </Button>
        <FileButton
          label={say`Import …`}
          accept=".json,application/json"
          take={([file]) => {
            setFaults([]);
            if (file) void take(file).catch(failed);
          }}
        />
      </div>
      {faults.length > 0 && (
        <div role="alert" className="fault">
          <p>{say`Not done:`}</p>
          <ul>
            {faults.slice(0, 10).map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
      )}
      <ul className="library-list list ruled">
        {items.data.map((item) => (
          <li key={item.id} className="row">
            <NavLink to={`/library/${shelf}/${item.id}`}>{nameOf(item.document)}</NavLink>
            <span className="soft">
              {item.ships
                ? item.version === 0
                  ? say`included with Water Clock`
                  : say`yours, replaces an included one`
                : say`yours`}
            </span>
            <span className="row near">
              <Button
                size="small"
                onClick={() =>
                  saveJson(`${nameOf(item.document)}.${ENDINGS[shelf]}.json`, item.document)
                }
              >{say`Export`}</Button>
              <Button
                size="small"
                onClick={() =>
                  add(
                    'timer' in item.document
                      ? {
                          ...item.document,
                          timer: {
                            ...item.document.timer,
                            name: say`${item.document.timer.name}, copy`,
                          },
                        }
                      : { ...item.document, name: say`${item.document.name}, copy` },
                  )
                }
              >{say`Copy`}</Button>
              <Button
                size="small"
                disabled={item.ships && item.version === 0}
                onClick={() => takeOut(item)}
              >
                {item.ships ? say`Restore the included one` : say`Delete`}
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {items.data.length === 0 && <p>{say`Nothing here yet.`}</p>}
      {shelf === 'climates' && <Feed add={add} failed={failed} />}
    </>
  );
}

function OpenEntry<S extends PagedShelf>({
  shelf,
  id,
}: {
  readonly shelf: S;
  readonly id: string;
}) {
  const items = useLibrary(shelf);
  const navigate = useNavigate();
  if (items.isPending) return <Loading what={say`the library`} />;
  if (items.isError)
    return (
      <Failed what={say`The library`} error={items.error} retry={() => void items.refetch()} />
    );
  const item = items.data.find((libraryItem) => libraryItem.id === id);
  if (!item) return <NotFound />;
  return (
    <Entry key={id} shelf={shelf} item={item} done={() => void navigate(`/library/${shelf}`)} />
  );
}

/** The company's documents: rules, timer kinds, minutes and weather, all in open formats. */
export default function LibraryPage() {
  const { shelf: path = 'rules', entry } = useParams();
  const [shelf, shelfName = ''] = SHELVES.find(([one]) => one === path) ?? [];
  usePageTitle(shelfName, say`Library`);
  if (!shelf) return <NotFound />;
  return (
    <div className="page library">
      <h1>{say`Library`}</h1>
      <nav className="row shelves" aria-label={say`Library sections`}>
        {SHELVES.map(([one, name]) => (
          <NavLink key={one} to={`/library/${one}`}>
            {name}
          </NavLink>
        ))}
      </nav>
      {entry ? (
        <OpenEntry key={entry} shelf={shelf} id={entry} />
      ) : (
        <ShelfList key={shelf} shelf={shelf} />
      )}
    </div>
  );
}
