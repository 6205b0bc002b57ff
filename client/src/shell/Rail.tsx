import { NavLink } from "react-router";

/** The rail at the left: the parts of the program that are there. */
export function Rail() {
  return (
    <nav className="rail" aria-label="Main">
      <NavLink to="/jobs" className="mark" aria-label="Emendum, jobs">
        E
      </NavLink>
      <NavLink to="/jobs">
        <svg viewBox="0 0 20 20" aria-hidden="true">
          <path d="M3 17V8l7-5 7 5v9zM8 17v-5h4v5" />
        </svg>
        Jobs
      </NavLink>
      <NavLink to="/customers">
        <svg viewBox="0 0 20 20" aria-hidden="true">
          <circle cx="10" cy="7" r="3.4" />
          <path d="M3.5 17c.6-4 3-5.6 6.500-5.600s5.900 1.600 6.500 5.600" />
        </svg>
        Customers
      </NavLink>
      <NavLink to="/book">
        <svg viewBox="0 0 20 20" aria-hidden="true">
          <path d="M4 4.500c2.500-1 4.500-1 6 .5 1.500-1.500 3.500-1.500 6-.5v11.500c-2.500-1-4.500-1-6 .5-1.500-1.500-3.500-1.500-6-.5zM10 5v11.500" />
        </svg>
        Book
      </NavLink>
      <NavLink to="/office">
        <svg viewBox="0 0 20 20" aria-hidden="true">
          <path d="M4 17V4h8v13M12 8h4v9M7 7h2M7 10h2M7 13h2" />
        </svg>
        Office
      </NavLink>
    </nav>
  );
}
