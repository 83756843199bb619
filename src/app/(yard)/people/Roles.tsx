import { ROLE_NAMES, ROLES, type Role } from '@/core/people/rights';

type Props = {
  readonly chosen: readonly Role[];
  readonly onChange: (roles: Role[]) => void;
  readonly fault: string | undefined;
};

/** What a person does here; somebody may do several things. */
export const Roles = ({ chosen, onChange, fault }: Props) => (
  <fieldset className="flex flex-wrap gap-x-5 gap-y-1 sm:col-span-3">
    <legend className="field-label">Roles</legend>
    {ROLES.map((r) => (
      <label key={r} className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={chosen.includes(r)}
          onChange={(e) => onChange(e.target.checked ? [...chosen, r] : chosen.filter((c) => c !== r))}
        />{' '}
        {ROLE_NAMES[r]}
      </label>
    ))}
    {fault !== undefined && (
      <p role="alert" className="field-fault basis-full">
        {fault}
      </p>
    )}
  </fieldset>
);
