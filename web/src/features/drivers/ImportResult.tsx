import type { ImportReport } from '../../api/types';
import { Button } from '../../ui/Button';

/** What came of an import, row by row where rows were bad. */
export function ImportResult({ report, onClose }: { report: ImportReport; onClose: () => void }) {
  const good = report.problem_count === 0;
  return (
    <section
      aria-label="Import"
      className={`rounded-[3px] border p-3 ${good ? 'border-met' : 'border-short bg-short-wash'}`}
    >
      <div className="flex items-start gap-3">
        <p className="flex-1 font-semibold">
          {good
            ? `${report.imported} drivers were imported.`
            : `Nothing was imported: ${report.problem_count} ${report.problem_count === 1 ? 'value' : 'values'} in ${report.rows} rows cannot be used. Mend them and import again.`}
        </p>
        <Button onClick={onClose}>Close</Button>
      </div>
      {report.ignored_columns.length > 0 && (
        <p>Columns without a meaning here: {report.ignored_columns.join(', ')}</p>
      )}
      {report.problems.length > 0 && (
        <table className="mt-2 w-full">
          <thead>
            <tr className="border-line border-b text-left">
              <th scope="col">Line</th>
              <th scope="col">Driver</th>
              <th scope="col">Column</th>
              <th scope="col">What is wrong</th>
            </tr>
          </thead>
          <tbody>
            {report.problems.map((problem) => (
              <tr
                key={`${problem.line}${problem.field}${problem.message}`}
                className="border-line border-b align-top"
              >
                <td className="pr-3">{problem.line}</td>
                <td className="pr-3">{problem.name}</td>
                <td className="pr-3 font-mono text-[13px]">{problem.field}</td>
                <td>{problem.message}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
