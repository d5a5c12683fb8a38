import type { components, operations } from './schema';

type Schemas = components['schemas'];

export type Typed = Schemas['Typed'];
export type RawDesign = Schemas['RawDesign'];
export type RawDriver = Schemas['RawDriver'];
export type RawEnclosure = Schemas['RawEnclosure'];
export type RawChamber = Schemas['RawChamber'];
export type RawMotor = Schemas['RawMotor'];
export type RawSegment = Schemas['RawSegment'];
export type RawPassage = Schemas['RawPassage'];
export type RawAsk = Schemas['RawAsk'];
export type StartReport = Schemas['StartReport'];
export type RibbonPiece = Schemas['RibbonPiece'];
export type RawPort = Schemas['RawPort'];
export type RawBuild = Schemas['RawBuild'];
export type Driver = Schemas['Driver'];
export type DriverPage = Schemas['DriverPage'];
export type WantedDrivers = NonNullable<operations['drivers_list']['parameters']['query']>;
export type RawSource = Schemas['RawSource'];
export type ColumnReport = Schemas['ColumnReport'];
/** What a column of a table shall hold; sent as JSON in the query. */
export interface ColumnChoice {
  field: string;
  unit: string;
}
export type Build = Schemas['Build'];
export type BuildWithVariants = Schemas['BuildWithVariants'];
export type Variant = Schemas['Variant'];
export type RawBrief = Schemas['RawBrief'];
export type Check = Schemas['Check'];
export type WiringWay = Schemas['Way'];
export type ChangeStep = Schemas['Step'];
export type BriefTemplate = Schemas['Template'];
export type Comparison = Schemas['Comparison'];
export type RawComparison = Schemas['RawComparison'];
export type Boxed = Schemas['Boxed'];
export type Search = Schemas['Search'];
export type SearchPage = Schemas['SearchPage'];
export type SearchRow = Schemas['SearchRow'];
export type SearchPoint = Schemas['SearchPoint'];
export type Found = Schemas['Found'];
export type Report = Schemas['Report'];
export type Curves = Schemas['Curves'];
export type FigureReport = Schemas['FigureReport'];
export type DriverReport = Schemas['DriverReport'];
export type ImportReport = Schemas['ImportReport'];
export type ProblemDocument = Schemas['ProblemDocument'];
export type FieldError = Schemas['FieldError'];
