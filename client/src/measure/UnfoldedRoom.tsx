import { useQuery } from "@tanstack/react-query";
import { useId } from "react";
import { type Place, api } from "../api/client";
import { Figure } from "../figure/Figure";
import { useJob } from "../job/JobContext";

interface Props {
  place: Place;
  pointed: string | null;
  onPoint: (measure: string | null) => void;
}

const openings = [
  "openingArea",
  "deductedArea",
  "doorCount",
  "windowCount",
  "openingCount",
  "revealLength",
  "revealArea",
];

/** A room to scale with its walls folded flat around the floor, the ceiling beside it. The core says where everything stands. */
export function UnfoldedRoom({ place, pointed, onPoint }: Props) {
  const [, { job }] = useJob();
  const id = useId();
  const { data: room } = useQuery({
    queryKey: ["drawing", job.id, place.id, place.line, job.deduct],
    queryFn: async () =>
      (await api.GET("/api/jobs/{id}/places/{place}/drawing", { params: { path: { id: job.id, place: place.id } } }))
        .data!,
    placeholderData: (kept) => kept,
  });
  const measure = (name: string) => place.measures.find((m) => m.name === name)!;
  if (!room) return null;
  const text = { fontSize: `calc(${room.width} * 0.0165px)` };
  const hatch = (kind: string, on: boolean) => `url(#${id}${kind}${on ? "-on" : ""})`;
  return (
    <>
      <header>
        <h2>
          {place.name}
          {place.count > 1 && ` ×${place.count}`}
        </h2>
        <span className="note">
          {room.notDrawn > 0 ? `${room.notDrawn} openings do not fit side by side and are not drawn; ` : ""}
          to scale; where openings stand along a wall is not measured
        </span>
      </header>
      <svg
        viewBox={`0 0 ${room.width} ${room.height}`}
        role="img"
        aria-label={`${place.name} unfolded: floor ${measure("floorArea").figure.shown}, walls net ${measure("netWallArea").figure.shown} ${measure("floorArea").figure.unit}`}
      >
        <defs>
          {[false, true].map((on) => (
            <Hatches key={String(on)} id={id} on={on} width={room.width} />
          ))}
        </defs>
        {room.surfaces.map((s) => {
          const on = pointed !== null && s.counts.includes(pointed);
          return (
            <rect
              key={s.kind + s.name}
              data-surface={s.kind + s.name}
              x={s.box.x}
              y={s.box.y}
              width={s.box.width}
              height={s.box.height}
              fill={hatch(s.kind, on)}
              className={on ? "surface on" : "surface"}
              onPointerEnter={() =>
                onPoint(s.kind === "floor" ? "floorArea" : s.kind === "ceiling" ? "ceilingArea" : "netWallArea")
              }
              onPointerLeave={() => onPoint(null)}
            />
          );
        })}
        {room.cuts.map((c, i) => (
          <rect
            key={i}
            data-opening={c.wall}
            x={c.box.x}
            y={c.box.y}
            width={c.box.width}
            height={c.box.height}
            className={`cut ${c.deducted ? "" : "kept"} ${pointed !== null && openings.includes(pointed) ? "on" : ""}`}
          >
            <title>{`${c.label}${c.deducted ? ", deducted" : ", not deducted"}`}</title>
          </rect>
        ))}
        {room.edges.map((e, i) => (
          <line
            key={i}
            x1={e.x1}
            y1={e.y1}
            x2={e.x2}
            y2={e.y2}
            className={`edge ${pointed === e.kind || (pointed === "perimeter" && e.kind === "skirtingLength") ? "on" : ""}`}
          />
        ))}
        {room.dimensions.map((d, i) => (
          <text
            key={i}
            x={d.x}
            y={d.y}
            textAnchor="middle"
            style={text}
            dy="-0.5em"
            transform={d.upright ? `rotate(-90 ${d.x} ${d.y})` : undefined}
          >
            {d.text}
          </text>
        ))}
      </svg>
      <dl className="legend">
        {(["floorArea", "netWallArea", "ceilingArea"] as const).map((name) => (
          <div
            key={name}
            className={pointed === name ? "pointed" : undefined}
            onPointerEnter={() => onPoint(name)}
            onPointerLeave={() => onPoint(null)}
            onFocus={() => onPoint(name)}
            onBlur={() => onPoint(null)}
          >
            <dt>
              <svg width="26" height="16" aria-hidden="true">
                <rect x="0.5" y="0.5" width="25" height="15" className="surface" fill={`url(#${id}key-${name})`} />
                <Key id={`${id}key-${name}`} name={name} />
              </svg>
              {measure(name).label}
            </dt>
            <dd>
              <Figure figure={measure(name).figure} label={measure(name).label} />
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}

/** Diagonal wall, grid floor, dotted ceiling: kinds are told apart by hatch, not by colour. */
function Hatches({ id, on, width }: { id: string; on: boolean; width: string }) {
  const scale = `scale(${width})`;
  const suffix = on ? "-on" : "";
  return (
    <g className={on ? "hatch on" : "hatch"}>
      <pattern
        id={`${id}wall${suffix}`}
        width="0.011"
        height="0.011"
        patternUnits="userSpaceOnUse"
        patternTransform={`${scale} rotate(45)`}
      >
        <rect width="0.011" height="0.011" className="back" />
        <path d="M0 0V0.011" strokeWidth="0.0016" />
      </pattern>
      <pattern
        id={`${id}floor${suffix}`}
        width="0.013"
        height="0.013"
        patternUnits="userSpaceOnUse"
        patternTransform={scale}
      >
        <rect width="0.013" height="0.013" className="back" />
        <path d="M0 0H0.013M0 0V0.013" strokeWidth="0.0016" />
      </pattern>
      <pattern
        id={`${id}ceiling${suffix}`}
        width="0.011"
        height="0.011"
        patternUnits="userSpaceOnUse"
        patternTransform={scale}
      >
        <rect width="0.011" height="0.011" className="back" />
        <circle cx="0.0055" cy="0.0055" r="0.0012" className="dot" />
      </pattern>
    </g>
  );
}

function Key({ id, name }: { id: string; name: string }) {
  return (
    <defs className="hatch">
      <pattern
        id={id}
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform={name === "netWallArea" ? "rotate(45)" : undefined}
      >
        <rect width="7" height="7" className="back" />
        {name === "ceilingArea" ? (
          <circle cx="3.5" cy="3.5" r="0.9" className="dot" />
        ) : (
          <path d={name === "netWallArea" ? "M0 0V7" : "M0 0H7M0 0V7"} strokeWidth="1" />
        )}
      </pattern>
    </defs>
  );
}
