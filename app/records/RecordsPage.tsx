import { Rail } from "../shell/Rail";
import { RecordsNav } from "./RecordsNav";

interface RecordsPageProps {
  readonly title: string;
  /** Its largest width, as a class. */
  readonly width: string;
  readonly children: React.ReactNode;
}

/** A page of the shop's records: its title, the links to the others, and its content. */
export const RecordsPage = ({ title, width, children }: RecordsPageProps) => (
  <div className="flex min-h-screen max-md:flex-col">
    <Rail />
    <main id="main" className={`grid w-full min-w-0 grow content-start gap-4 p-5 max-md:p-3 ${width}`}>
      <h1 className="text-2xl font-bold">{title}</h1>
      <RecordsNav />
      {children}
    </main>
  </div>
);
