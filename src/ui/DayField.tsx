import { parseDate } from '@internationalized/date';
import {
  DateField,
  DateInput,
  DateSegment,
  FieldError,
  I18nProvider,
  Label,
  type DateSegmentRenderProps,
} from 'react-aria-components';
import { MONTH_WORDS } from './words';
import dayFieldStyles from './DayField.module.css';

interface Props {
  label: string;
  /** YYYY-MM-DD, or empty. */
  value: string;
  onChange: (day: string) => void;
  onBlur?: () => void;
  onFocus?: () => void;
  fault?: string;
  /** Only for screen readers, where the row says it already. */
  isLabelHidden?: boolean;
  isDisabled?: boolean;
}

const BLANKS: Partial<Record<string, string>> = { day: 'day', month: 'month', year: 'year' };

/** Months are named, so that no day can be taken for a month. */
function written({ type, text, isPlaceholder }: DateSegmentRenderProps): string {
  if (type === 'literal') return '\u00a0';
  if (isPlaceholder) return BLANKS[type] ?? text;
  return type === 'month' ? (MONTH_WORDS[Number(text) - 1] ?? text) : text;
}

/** A day as it is written everywhere here, 24 Nov 2026: day, month and year each typed or stepped by the arrows. */
export function DayField({
  label,
  value,
  onChange,
  onBlur,
  onFocus,
  fault,
  isLabelHidden,
  isDisabled,
}: Props) {
  return (
    <I18nProvider locale="en-GB">
      <DateField
        value={value ? parseDate(value) : null}
        onChange={(day) => onChange(day?.toString() ?? '')}
        onBlur={onBlur}
        onFocus={onFocus}
        isInvalid={fault !== undefined}
        isDisabled={isDisabled}
        aria-label={isLabelHidden ? label : undefined}
      >
        {!isLabelHidden && <Label className="eyebrow block">{label}</Label>}
        <DateInput className={`field ${dayFieldStyles.dayField}`}>
          {(segment) => (
            <DateSegment segment={segment} className={dayFieldStyles.dayPart}>
              {written}
            </DateSegment>
          )}
        </DateInput>
        {fault && <FieldError className="block text-[0.82rem] leading-tight text-madder">{fault}</FieldError>}
      </DateField>
    </I18nProvider>
  );
}
