import { useEffect, useState } from "react";
import styles from "./customer.module.css";

interface Place {
  id: string;
  title: string;
}

/** What stands on the page, and where one is. */
export function Contents({ places }: { places: readonly Place[] }) {
  const [at, setAt] = useState("");
  const ids = places.map((p) => p.id).join(" ");
  useEffect(() => {
    // One is at the last place whose head has passed the upper third of the window.
    const look = () => {
      const passed = ids
        .split(" ")
        .filter((id) => (document.getElementById(id)?.getBoundingClientRect().top ?? Infinity) < innerHeight / 3);
      setAt(passed.at(-1) ?? "");
    };
    look();
    addEventListener("scroll", look, { passive: true });
    return () => removeEventListener("scroll", look);
  }, [ids]);
  return (
    <nav className={styles.contents} aria-label="On this page">
      <h2>On this page</h2>
      <ul>
        {places.map((place) => (
          <li key={place.id}>
            <a href={`#${place.id}`} aria-current={place.id === at ? "location" : undefined}>
              {place.title}
            </a>
          </li>
        ))}
      </ul>
    </nav>
  );
}
