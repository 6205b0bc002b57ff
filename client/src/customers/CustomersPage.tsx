import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Stack, TextField } from "@mui/material";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { type Refused, type Schemas, api, newId } from "../api/client";
import { ask } from "../api/queries";

type Customer = Schemas["Customer"];

/** All customers; find by anything typed. */
export function CustomersPage() {
  const [find, setFind] = useState("");
  const [editing, setEditing] = useState<Customer | null>(null);
  const { data: customers, error } = useQuery(ask.customers);
  const needle = find.trim().toLowerCase();
  const shown = customers?.filter((c) => Object.values(c).join(" ").toLowerCase().includes(needle));
  return (
    <main className="page">
      <Stack direction="row" spacing={1.5} sx={{ alignItems: "center", mb: 2 }}>
        <h1 style={{ fontSize: 19, marginRight: "auto" }}>Customers</h1>
        <TextField label="Find a customer" value={find} onChange={(e) => setFind(e.target.value)} sx={{ width: 280 }} />
        <Button
          variant="contained"
          onClick={() => setEditing({ id: newId(), name: "", address: "", email: "", phone: "" })}
        >
          New customer
        </Button>
      </Stack>
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

const fields = [
  ["name", "Name"],
  ["address", "Address"],
  ["email", "E-mail"],
  ["phone", "Phone"],
] as const;

function CustomerForm({ customer, onClose }: { customer: Customer; onClose: () => void }) {
  const [form, setForm] = useState(customer);
  // As it was seen; null for one that is made here.
  const [was, setWas] = useState<Customer | null>(customer.name === "" ? null : customer);
  const [wrong, setWrong] = useState<Refused | null>(null);
  const queries = useQueryClient();
  async function keep() {
    try {
      await api.PUT("/api/customers/{id}", { params: { path: { id: form.id } }, body: { was, now: form } });
      await queries.invalidateQueries(ask.customers);
      onClose();
    } catch (error) {
      const refused = error as Refused;
      setWrong(refused);
      // What somebody else has put there meanwhile has now been seen: kept once more, what is typed takes its place.
      if (refused.status === 409 && was && refused.field) setWas({ ...was, [refused.field]: refused.current });
    }
  }
  return (
    <Dialog open onClose={onClose} aria-labelledby="customer-title" fullWidth maxWidth="xs">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        <DialogTitle id="customer-title">{customer.name || "New customer"}</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            {fields.map(([field, label]) => (
              <TextField
                key={field}
                label={label}
                autoFocus={field === "name"}
                value={form[field]}
                onChange={(e) => setForm({ ...form, [field]: e.target.value })}
                error={wrong?.field === field}
                helperText={
                  wrong?.field !== field
                    ? undefined
                    : wrong.status === 409
                      ? `It has been changed to “${String(wrong.current)}” meanwhile. Keep once more puts yours in its place.`
                      : wrong.message
                }
              />
            ))}
            {wrong && !fields.some(([f]) => f === wrong.field) && <p className="error">{wrong.message}</p>}
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Keep
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  );
}
