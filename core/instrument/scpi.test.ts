// Command syntax, common commands and error numbers by IEEE 488.2-1992 and SCPI-1999 (from memory).
import { describe, expect, test } from "@jest/globals";
import { blockBytes, definiteBlock, ScpiDevice, ScpiError, scpiParameters } from "./scpi";

const said: string[][] = [];
const device = () =>
  new ScpiDevice("Maker,Model,1,2", () => void said.push(["reset"]), [
    { header: "MEASure[:SCALar][:VOLTage][:DC]?", run: () => "+1.25E+01" },
    { header: "MEASure[:SCALar]:CURRent[:DC]?", run: () => "+3" },
    {
      header: "ROUTe:LEADs",
      run: (parameters) => {
        said.push([...parameters]);
        return null;
      },
    },
    {
      header: "ROUTe:LIMit",
      run: () => {
        throw new ScpiError(-222, "Data out of range");
      },
    },
    { header: "TRACe:DATA?", run: () => definiteBlock(new Uint8Array([1, 10, 59])) },
  ]);
const ask = (own: ScpiDevice, line: string): string | null => {
  const answer = own.answer(line);
  return answer === null ? null : String.fromCharCode(...answer);
};

describe("an instrument on a line", () => {
  test.each([
    ["*IDN?", "Maker,Model,1,2\n"],
    ["*idn?", "Maker,Model,1,2\n"],
    ["*OPC?", "1\n"],
    ["*TST?", "0\n"],
    ["SYST:VERS?", "1999.0\n"],
    ["SYSTem:ERRor:NEXT?", '0,"No error"\n'],
    ["MEAS?", "+1.25E+01\n"],
    ["MEAS:VOLT:DC?", "+1.25E+01\n"],
    [":measure:scalar:voltage:dc?", "+1.25E+01\n"],
    ["MEAS:CURR?", "+3\n"],
    ["*OPC?;MEAS:CURR:DC?", "1;+3\n"],
  ])("%s answers %j", (line, answer) => expect(ask(device(), line)).toBe(answer));

  test("an unknown command goes to its error queue and event register", () => {
    const own = device();
    expect(ask(own, "MEASU:VOLT?")).toBeNull();
    expect(ask(own, "ROUT:LIM")).toBeNull();
    expect(ask(own, "SYST:ERR?")).toBe('-113,"Undefined header"\n');
    expect(ask(own, "SYST:ERR?")).toBe('-222,"Data out of range"\n');
    expect(ask(own, "SYST:ERR?")).toBe('0,"No error"\n');
    // Power on 128, command error 32, execution error 16; reading clears them.
    expect(ask(own, "*ESR?")).toBe("176\n");
    expect(ask(own, "*ESR?")).toBe("0\n");
  });

  test("status and masks", () => {
    const own = device();
    own.answer("*ESE 32;*SRE 32;BAD:HEADER");
    expect(ask(own, "*ESE?;*SRE?")).toBe("32;32\n");
    // Event summary 32, error queue 4, request for service 64.
    expect(ask(own, "*STB?")).toBe("100\n");
    own.answer("*CLS");
    expect(ask(own, "*STB?")).toBe("0\n");
    own.answer("*ESE 999");
    expect(ask(own, "SYST:ERR?")).toBe('-222,"Data out of range"\n');
    own.answer("*RST");
    expect(said.at(-1)).toEqual(["reset"]);
  });

  test("parameters are split at commas outside quotes", () => {
    expect(scpiParameters('"X3:1","G1.-"')).toEqual(["X3:1", "G1.-"]);
    expect(scpiParameters(`'a, "b"' , 5`)).toEqual(['a, "b"', "5"]);
    expect(scpiParameters("  ")).toEqual([]);
    device().answer('ROUT:LEAD "a;b",c');
    expect(said.at(-1)).toEqual(["a;b", "c"]);
  });

  test("a definite-length block holds any bytes and is recognised when complete", () => {
    const answer = device().answer("TRAC:DATA?") as Uint8Array;
    expect(String.fromCharCode(...answer.subarray(0, 3))).toBe("#13");
    expect(blockBytes(answer)).toEqual({ data: new Uint8Array([1, 10, 59]), used: 6 });
    expect(blockBytes(answer.subarray(0, 4))).toBeNull();
    expect(() => blockBytes(new Uint8Array([35, 65, 1]))).toThrow(ScpiError);
    const long = definiteBlock(new Uint8Array(12_345));
    expect(blockBytes(long)?.data).toHaveLength(12_345);
  });

  test("its queue has a limit", () => {
    const own = device();
    for (let i = 0; i < 100; i++) own.answer("NO:SUCH");
    let count = 0;
    while (ask(own, "SYST:ERR?") !== '0,"No error"\n') count += 1;
    expect(count).toBe(16);
  });
});
