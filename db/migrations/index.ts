import { first } from "./001-first";
import { heardAnswers } from "./002-heard-answers";
import { strategy } from "./003-school";
import { notes } from "./004-notes";
import { circuitVersions } from "./005-circuit-versions";
import { drafts } from "./006-drafts";
import { traces } from "./007-traces";
import { fit } from "./008-fit";
import { memory } from "./009-memory";
import { practice } from "./010-practice";
import { jobLines } from "./011-job-lines";
import { practiceCircuits } from "./012-practice-circuits";
import { setAside } from "./013-set-aside";
import { vehicleNames } from "./014-vehicle-names";
import { board } from "./015-board";
import { works } from "./016-works";
import { tray } from "./017-tray";
import { sources } from "./018-sources";
import { rounds } from "./019-rounds";
import { seenJobs } from "./020-seen-jobs";
import { who } from "./021-who";
import { shared } from "./022-shared";

/** Every migration, oldest first. To add one, add a file and a line here. */
export const migrations = [
  first,
  heardAnswers,
  strategy,
  notes,
  circuitVersions,
  drafts,
  traces,
  fit,
  memory,
  practice,
  jobLines,
  practiceCircuits,
  setAside,
  vehicleNames,
  board,
  works,
  tray,
  sources,
  rounds,
  seenJobs,
  who,
  shared,
];
