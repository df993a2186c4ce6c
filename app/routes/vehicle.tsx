import { everything } from "@db/recordQuery";
import { findRecords } from "@db/repositories/records.server";
import { findVehicle } from "@db/repositories/vehicles.server";
import { data, Link } from "react-router";
import { RecordsPage } from "../records/RecordsPage";
import { RecordTable } from "../records/RecordTable";
import { recordRows } from "../records/recordRows.server";
import type { Route } from "./+types/vehicle";

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.vehicle ?? "Vehicle"} · Airway` },
];

export async function loader({ params }: Route.LoaderArgs) {
  const id = /^\d{1,9}$/.test(params.id) ? Number(params.id) : 0;
  const vehicle = await findVehicle(id);
  if (!vehicle) throw data("There is no such vehicle.", { status: 404 });
  const lines = await findRecords({ ...everything, vehicle: id, count: 500 });
  return {
    vehicle: `${vehicle.model}, ${vehicle.label}`,
    circuitId: vehicle.circuitId,
    rows: await recordRows(lines),
  };
}

export default function VehicleHistory({ loaderData }: Route.ComponentProps) {
  return (
    <RecordsPage title={loaderData.vehicle} width="max-w-7xl">
      <p className="flex flex-wrap gap-3">
        <Link to="/records" className="btn">
          All records
        </Link>
        <Link to={`/shelf/${encodeURIComponent(loaderData.circuitId)}`} className="btn">
          Its circuit
        </Link>
      </p>
      <RecordTable rows={loaderData.rows} />
    </RecordsPage>
  );
}
