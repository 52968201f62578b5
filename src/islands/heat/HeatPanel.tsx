import { useMemo, useState } from 'react';
import { REST_WAYS } from '../../core/batch/types';
import type { TraitMaterial } from '../../core/formula/traits';
import type { Formula } from '../../core/formula/types';
import { filledShape } from '../../core/heat/mould';
import { heatBatters } from '../../core/heat/batter';
import { USUAL_POUR_C, USUAL_ROOM_C } from '../../core/heat/batch-pour';
import type { Question } from '../../core/heat/ways';
import type { Mould } from '../../core/making/size';
import { NumberField } from '../../ui/ReadField';
import { Select } from '../../ui/Select';
import { useHeat, useWarmth } from './heat';
import { HeatView } from './HeatView';
import { fromDegrees, habits, inDegrees } from '../../ui/habits';
import { WALL_WORDS, WAY_WORDS } from './words';

const ignore = () => undefined;
const [COLDEST_ROOM, HOTTEST_ROOM] = [-5, 45];
const [COLDEST_POUR, HOTTEST_POUR] = [10, 80];

interface Props {
  formula: Formula;
  material: (id: string) => TraitMaterial | undefined;
  moulds: readonly Mould[];
  mould: Mould;
}

function Asked({ formula, material, moulds, mould }: Props) {
  const [roomC, setRoomC] = useState(USUAL_ROOM_C);
  const house = habits();
  const [startC, setStartC] = useState(USUAL_POUR_C);
  const [way, setWay] = useState<(typeof REST_WAYS)[number]>('leave');
  const question = useMemo<Question>(() => {
    const materials = formula.lines.flatMap((line) => material(line.material) ?? []);
    return { formula, materials, mould, around: { way, roomC }, startC };
  }, [formula, material, mould, way, roomC, startC]);
  const filled = useMemo(() => {
    const batters = heatBatters(question.formula, question.materials);
    return filledShape(
      mould,
      (batters ?? []).reduce((sum, { volumeMl }) => sum + volumeMl, 0),
    );
  }, [question, mould]);
  const single = useMemo(() => moulds.find(({ isSingle }) => isSingle) ?? null, [moulds]);
  const heat = useHeat(question, useWarmth(mould.id), single);
  const { shape, isGuessed } = filled;
  const field = (
    label: string,
    value: number,
    [least, most]: readonly [number, number],
    set: (c: number) => void,
  ) => (
    <NumberField
      label={label}
      unit={`°${house.degrees}`}
      value={Math.round(inDegrees(value, house))}
      least={Math.round(inDegrees(least, house))}
      most={Math.round(inDegrees(most, house))}
      onChange={(said) => set(fromDegrees(said, house))}
      onFault={ignore}
    />
  );
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        {field('Poured at', startC, [COLDEST_POUR, HOTTEST_POUR], setStartC)}
        {field('Room', roomC, [COLDEST_ROOM, HOTTEST_ROOM], setRoomC)}
        <Select
          label="How it rests"
          value={way}
          options={REST_WAYS.map((one) => [one, WAY_WORDS[one]] as const)}
          onChange={setWay}
        />
      </div>
      <p className="text-soft">
        {mould.name}: {WALL_WORDS[shape.wall]}, {Math.round(shape.lengthMm)} × {Math.round(shape.widthMm)} mm,
        filled {Math.round(shape.heightMm)} mm high
        {isGuessed && '; guessed from what it holds. Say what it is made of under “My moulds”'}.
      </p>
      <HeatView heat={heat} shape={shape} way={way} />
    </>
  );
}

/** How the block heats after the pour, reckoned once it is asked for. */
export function HeatPanel(props: Props) {
  const [isOpen, setOpen] = useState(false);
  return (
    <details
      className="mt-3 border-t border-line pt-2"
      open={isOpen}
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer font-display text-lg">How it heats after the pour</summary>
      {isOpen && <Asked {...props} />}
    </details>
  );
}
