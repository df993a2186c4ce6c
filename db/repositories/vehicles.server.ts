import type { Transaction } from "sequelize";
import { VehicleRow } from "../models/jobModels.server";

export interface Vehicle {
  readonly id: number;
  readonly label: string;
  readonly model: string;
  readonly circuitId: string;
}

const vehicleOf = ({ id, label, model, circuitId }: VehicleRow): Vehicle => ({ id, label, model, circuitId });

export async function listVehicles(): Promise<Vehicle[]> {
  return (await VehicleRow.findAll({ order: [["label", "ASC"]] })).map(vehicleOf);
}

export async function findVehicle(id: number): Promise<Vehicle | null> {
  const row = await VehicleRow.findByPk(id);
  return row ? vehicleOf(row) : null;
}

export async function addVehicle(vehicle: Omit<Vehicle, "id">, transaction: Transaction): Promise<Vehicle> {
  return vehicleOf(await VehicleRow.create(vehicle, { transaction }));
}
