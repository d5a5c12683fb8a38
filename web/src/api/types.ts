import type { components } from './schema';

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
export type Build = Schemas['Build'];
export type BuildWithVariants = Schemas['BuildWithVariants'];
export type Variant = Schemas['Variant'];
export type Report = Schemas['Report'];
export type Curves = Schemas['Curves'];
export type FigureReport = Schemas['FigureReport'];
export type DriverReport = Schemas['DriverReport'];
export type ImportReport = Schemas['ImportReport'];
export type ProblemDocument = Schemas['ProblemDocument'];
export type FieldError = Schemas['FieldError'];
