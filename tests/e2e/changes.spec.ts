import { expect, test } from "./test";
import { accessible, measure, saved } from "./pages";
import { accepted, phone } from "./sendPages";
import { addEverywhere, cell, rooms } from "./workPages";

test("what is wanted besides becomes a change order: seen, sent, signed on the customer's page, done and billed", async ({
  page,
  browser,
}) => {
  await rooms(page, "Dotterel Yard", 2);
  await addEverywhere(page, "Walls Paint");
  await accepted(page);
  await page.keyboard.press("Alt+5");
  const views = page
    .getByRole("group", { name: "View" })
    .or(page.locator("main"));
  await views.getByRole("button", { name: "Changes" }).first().press("Enter");
  await expect(page.getByText("The job is as it was agreed.")).toBeVisible();
  await accessible(page, "changes, with nothing changed");
  await page.getByRole("button", { name: "Schedule" }).press("Enter");
  await page.getByRole("button", { name: "Lay it out" }).press("Enter");
  const laying = page.getByRole("dialog", { name: "Lay it out" });
  await laying.getByRole("button", { name: "Lay it out" }).press("Enter");
  await expect(laying).toHaveCount(0);

  // The customer wants the porch, too, and one room less.
  await page.keyboard.press("Alt+1");
  await measure(page, "Porch 10 x 8 x 8");
  await page.keyboard.press("Alt+2");
  await cell(page, /Walls: Paint, Porch/).click();
  await page.keyboard.press("i");
  await cell(page, /Walls: Paint, Room 2/).click();
  await page.keyboard.press("o");
  await saved(page);

  await page.keyboard.press("Alt+5");
  await page.getByRole("button", { name: "Changes" }).press("Enter");
  const differs = page.getByRole("list", { name: "Differences" });
  await expect(differs.getByRole("listitem")).toHaveCount(2);
  await expect(differs).toContainText("added: 288.0 ft²");
  await expect(differs).toContainText("not done any more");
  const change = page.getByRole("list", { name: "The change" });
  await expect(change).toContainText("Contract sum");
  const both = await change.innerText();
  // The room stays for now: the other is a change by itself.
  await differs.getByRole("checkbox", { name: /Room 2/ }).press("Space");
  await expect(change).not.toHaveText(both);
  await expect(
    page.getByRole("table").getByRole("rowheader", { name: /Porch/ }),
  ).toBeVisible();
  await expect(
    page.getByRole("table").getByRole("rowheader", { name: /Room 2/ }),
  ).toHaveCount(0);
  await accessible(page, "a change that is priced");

  await page
    .getByRole("button", { name: "Send change order 1" })
    .press("Enter");
  const dialog = page.getByRole("dialog", { name: "Change order 1" });
  await page.keyboard.type("The porch, too");
  await dialog.getByRole("radio", { name: /^By hand/ }).check();
  await dialog
    .getByRole("textbox", { name: "Can be accepted until" })
    .fill("soon");
  await dialog.getByRole("button", { name: "Send it" }).press("Enter");
  await expect(dialog.getByRole("alert")).toContainText("like 2027-01-31");
  await accessible(page, "a change order that is sent");
  await dialog.getByRole("textbox", { name: "Can be accepted until" }).fill("");
  await dialog.getByRole("button", { name: "Send it" }).press("Enter");
  await expect(dialog).toHaveCount(0);
  const sent = page.getByRole("article", { name: "Change order 1, sent" });
  await expect(sent).toBeVisible();
  await expect(page.getByRole("list", { name: "Waiting" })).toContainText(
    "Porch",
  );

  // The customer reads and signs it on a telephone.
  const link = page.getByRole("region", {
    name: "Customer page of change order 1",
  });
  await link.getByRole("button", { name: "New link" }).press("Enter");
  await page.keyboard.type("Ida Marrow");
  await page.keyboard.press("Enter");
  const made = page.getByRole("dialog", { name: /The link of Ida Marrow/ });
  const address = await made.getByRole("link").innerText();
  await page.keyboard.press("Escape");
  const customer = await phone(browser, address);
  await expect(
    customer.getByText("Change order 1: The porch, too").first(),
  ).toBeVisible();
  await accessible(customer, "a change order on the customer's page");
  await customer.getByRole("link", { name: /Accept/ }).click();
  await customer.getByRole("radio", { name: "Type it" }).check();
  await customer
    .getByRole("textbox", { name: "Name in full" })
    .fill("Ida Marrow");
  await customer.getByRole("checkbox", { name: /^I may sign/ }).press("Space");
  await customer.getByRole("button", { name: /^Sign for/ }).press("Enter");
  await expect(customer.getByText(/^Accepted on /)).toBeVisible();
  await customer.context().close();

  // It is in the contract sum, the work order, and can be billed on its own.
  await expect(
    page.getByRole("article", { name: "Change order 1, accepted" }),
  ).toBeVisible();
  await expect(
    page.getByRole("region", { name: "The contract sum" }),
  ).toContainText("The porch, too");
  await expect(differs.getByRole("listitem")).toHaveCount(1);
  await page.getByRole("button", { name: "Work order" }).press("Enter");
  await expect(
    page
      .getByRole("region", { name: "Work order" })
      .getByRole("region", { name: "Porch" }),
  ).toBeVisible();
  await page.getByRole("button", { name: "Schedule" }).press("Enter");
  const tasks = page.getByRole("region", { name: "Tasks" });
  await expect(tasks).toContainText("Change orders are not in it yet");
  await accessible(page, "a schedule that a change order is not in yet");
  await tasks.getByRole("button", { name: "Take them over" }).press("Enter");
  const taking = page.getByRole("region", { name: "Before it is moved" });
  await expect(taking).toContainText("What changes");
  await taking.getByRole("button", { name: "Take over only" }).press("Enter");
  await expect(tasks).toBeVisible();
  await expect(tasks).not.toContainText("Change orders are not in it yet");
  await page.getByRole("button", { name: "Invoices" }).press("Enter");
  await page
    .getByRole("button", { name: "New invoice" })
    .first()
    .press("Enter");
  const invoice = page.getByRole("dialog", { name: "New invoice" });
  await invoice.getByRole("radio", { name: /^A change order/ }).check();
  await expect(
    invoice.getByRole("list", { name: "What it comes to" }),
  ).toBeVisible();
  await invoice.getByRole("button", { name: "Issue it" }).press("Enter");
  await expect(invoice).toHaveCount(0);
  await expect(
    page.getByText("Change order 1: The porch, too").first(),
  ).toBeVisible();
});
