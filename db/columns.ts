import { DataTypes } from "sequelize";

// Sequelize writes into the attribute objects it is given, so each column gets its own.
export const text = () => ({ type: DataTypes.TEXT, allowNull: false });
export const maybeText = () => ({ type: DataTypes.TEXT, allowNull: true });
export const moment = () => ({ type: DataTypes.DATE, allowNull: false });
export const maybeMoment = () => ({ type: DataTypes.DATE, allowNull: true });
export const number = () => ({ type: DataTypes.INTEGER, allowNull: false });
export const maybeNumber = () => ({ type: DataTypes.INTEGER, allowNull: true });
export const real = () => ({ type: DataTypes.FLOAT, allowNull: false });
export const maybeReal = () => ({ type: DataTypes.FLOAT, allowNull: true });
export const counted = () => ({ type: DataTypes.INTEGER, primaryKey: true, autoIncrement: true });
export const named = () => ({ type: DataTypes.TEXT, primaryKey: true });
