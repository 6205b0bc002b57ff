import { Button } from "@mui/material";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { newId } from "../api/client";
import { ask } from "../api/queries";
import { Input } from "../controls/Input";
import { PageHead } from "../shell/PageHead";
import { type Customer, CustomerForm } from "./CustomerForm";

/** All customers; find by anything typed. */
export function CustomersPage() {
  const [find, setFind] = useState("");
  const [editing, setEditing] = useState<Customer | null>(null);
  const { data: customers, error } = useQuery(ask.customers);
  const needle = find.trim().toLowerCase();
  const shown = customers?.filter((c) =>
    [c.name, c.address, c.email, c.phone, c.exemption?.reason].join(" ").toLowerCase().includes(needle),
  );
  return (
    <main className="page">
      <PageHead title="Customers">
        <Input bare type="search" label="Find a customer" placeholder="Find a customer" value={find} onType={setFind} />
        <Button
          variant="contained"
          onClick={() => setEditing({ id: newId(), name: "", address: "", email: "", phone: "" })}
        >
          New customer
        </Button>
      </PageHead>
      {error && <p className="error">{error.message}</p>}
      <div className="panel">
        <table className="list">
          <thead>
            <tr>
              <th>Customer</th>
              <th>Address</th>
              <th>E-mail</th>
              <th>Phone</th>
            </tr>
          </thead>
          <tbody>
            {shown?.map((customer) => (
              <tr key={customer.id}>
                <td>
                  <button className="link" onClick={() => setEditing(customer)}>
                    {customer.name}
                  </button>
                  {customer.exemption && <span className="note"> · no tax: {customer.exemption.reason}</span>}
                </td>
                <td>{customer.address}</td>
                <td>{customer.email}</td>
                <td>{customer.phone}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {shown?.length === 0 && (
          <p className="note" style={{ padding: "4px 14px" }}>
            {customers?.length === 0 ? "No customers yet. Add the first with “New customer”." : "No customer has that."}
          </p>
        )}
      </div>
      {editing && <CustomerForm customer={editing} onClose={() => setEditing(null)} />}
    </main>
  );
}
