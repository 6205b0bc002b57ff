import type { Schemas } from "../api/client";
import styles from "./measure.module.css";

type Units = Schemas["JobView"]["units"];

const forms: Record<Units, [string, string][]> = {
  feet: [
    ["a room", "Study 14'6 x 11 x 8; door 3 x 6'8; window 4 x 3'6 x2"],
    ["shorter", "Study 14'6x11x8;d3x6'8;w4x3'6x2"],
    ["by its walls", "Corner walls 20 r 10 r 8 l 6 r 12 r 16 x 9"],
    ["by its corners", "Corner corners 0,0 20,0 20,10 12,10 12,16 0,16 x 9"],
    ["sloped ceiling", "Loft 14 x 10 slope 4, 4, 8, 8"],
    ["parts of a room", "; wall B 10'6   ; band tile to 4   ; island 6 x 3 at 5,4"],
    ["of an opening", '; window 3 x 4 x2 deep 4" sill at 3 on B   ; door 3 x 7 into Hall'],
    ["an outside face", "Front face 40 x 18; gable 40 x 9; window 3 x 5 x6"],
    ["a site", 'Court site 40 x 25 deep 4"   ·   Court site 0.4 acre around 560'],
    ["a run", 'Fascia run 120 wide 8"   ·   Pipe run 60 girth 14"'],
    ["a stair", "Back stair 14 rise 7 1/2\" going 10\" wide 3'6; landing 3'6 x 4"],
    ["windows alone", "Front windows: window 3 x 4 x6; window 2 x 2; door 3 x 7 glazed"],
    ["things", "Fittings items 12 handles, 4 notice boards"],
    ["later, or several", "Study 2 not measured   ·   ; x3"],
  ],
  metres: [
    ["a room", "Study 4.42 x 3.35 x 2.44; door 0.91 x 2.03; window 1.2 x 1.07 x2"],
    ["shorter", "Study 4.42x3.35x2.44;d.91x2.03;w1.2x1.07x2"],
    ["by its walls", "Corner walls 6 r 3 r 2.4 l 1.8 r 3.6 r 4.8 x 2.7"],
    ["by its corners", "Corner corners 0,0 6,0 6,3 3.6,3 3.6,4.8 0,4.8 x 2.7"],
    ["sloped ceiling", "Loft 4.2 x 3 slope 1.2, 1.2, 2.4, 2.4"],
    ["parts of a room", "; wall B 3.2   ; band tile to 1.2   ; island 1.8 x 0.9 at 1.5,1.2"],
    ["of an opening", "; window 1 x 1.2 x2 deep 100 mm sill at 0.9 on B   ; door 0.9 x 2.1 into Hall"],
    ["an outside face", "Front face 12 x 5.4; gable 12 x 2.75; window 1 x 1.5 x6"],
    ["a site", "Court site 12 x 7.5 deep 100 mm   ·   Court site 0.2 ha around 180"],
    ["a run", "Fascia run 36 wide 200 mm   ·   Pipe run 18 girth 350 mm"],
    ["a stair", "Back stair 14 rise 190 mm going 250 mm wide 1.05; landing 1.05 x 1.2"],
    ["windows alone", "Front windows: window 1 x 1.2 x6; window 0.6 x 0.6; door 0.9 x 2.1 glazed"],
    ["things", "Fittings items 12 handles, 4 notice boards"],
    ["later, or several", "Study 2 not measured   ·   ; x3"],
  ],
};

/** The forms of a tape line, each with an example that can be taken up. */
export function TapeHelp({ units, id }: { units: Units; id: string }) {
  return (
    <div className={styles.tapehelp} id={id} role="region" tabIndex={0} aria-label="Forms of the tape line">
      <dl>
        {forms[units].map(([what, form]) => (
          <div key={what}>
            <dt>{what}</dt>
            <dd>
              <code>{form}</code>
            </dd>
          </div>
        ))}
      </dl>
      <p className="note">
        r and l turn right and left, r45° by an angle. Lengths:{" "}
        {units === "feet" ? "12'6, 12-6, 12'6 1/2, 150\"" : "3.81, 381 cm, 3810 mm"}, 3.81 m, and sums like{" "}
        {units === "feet" ? "12 + 2'6" : "3.6 + 0.75"}.
      </p>
    </div>
  );
}
