import { expect, test } from "./test";
import { accessible } from "./pages";
import { accepted } from "./sendPages";
import { addEverywhere, rooms } from "./workPages";

test("what an accepted job needs is ordered, comes in parts, is used and put back; the stock list counts what is there", async ({
  page,
}) => {
  await rooms(page, "Fulmar Row", 3);
  await addEverywhere(page, "Ceilings Paint");
  await accepted(page);
  await page.keyboard.press("Alt+5");
  await page.getByRole("button", { name: "Buying" }).press("Enter");
  const goods = page.getByRole("region", { name: "Goods of the job" });
  const ceiling = goods.getByRole("row", { name: /Gull ceiling matt/ });
  await expect(ceiling).toContainText("1 gal can");
  const toOrder = page.getByRole("region", { name: "To order" });
  const sums = page.getByRole("region", { name: "Against the estimate" });
  await expect(sums).toContainText("as estimated");
  await accessible(page, "buying");

  // What cannot be ordered is said, and nothing is placed.
  await toOrder
    .getByRole("button", { name: "Order from Ennis Paint Counter" })
    .press("Enter");
  const ordering = page.getByRole("dialog", {
    name: "Order from Ennis Paint Counter",
  });
  const count = ordering.getByRole("textbox", {
    name: "How many of Gull ceiling matt, 1 gal can",
  });
  const price = ordering.getByRole("textbox", {
    name: "Price of Gull ceiling matt, 1 gal can",
  });
  const place = ordering.getByRole("button", { name: "Place it" });
  await count.fill("few");
  await expect(ordering.getByRole("alert")).toContainText("as a number");
  await expect(place).toBeDisabled();
  await count.fill("4");
  await ordering
    .getByRole("textbox", { name: "How many of Gull ceiling matt, 5 gal pail" })
    .fill("");
  await price.fill("30.25");
  const total = ordering.getByRole("list", { name: "What it comes to" });
  await expect(total).toContainText("121.00");
  await accessible(page, "a new order");
  await ordering.getByRole("textbox", { name: "Wanted by" }).fill("yesterday");
  await place.press("Enter");
  await expect(ordering.getByRole("alert")).toContainText("like 2027-01-31");
  await expect(price).toHaveValue("30.25");
  await ordering.getByRole("textbox", { name: "Wanted by" }).fill("2099-01-31");
  await place.press("Enter");
  await expect(ordering).toHaveCount(0);
  const order = page.getByRole("article", { name: /^Order PO / });
  await expect(order).toContainText("on order");
  await expect(ceiling).toContainText("4 gal");
  await expect(page.getByRole("link", { name: /^Deliver/ })).toContainText(
    "1 of",
  );

  // It goes by mail, and stands in the outbox.
  await order.getByRole("button", { name: /^Mail PO/ }).press("Enter");
  const mail = page.getByRole("dialog", { name: /^Mail PO/ });
  await expect(
    mail.getByRole("textbox", { name: "To", exact: true }),
  ).toHaveValue("orders@paintcounter.example");
  await mail
    .getByRole("textbox", { name: "To", exact: true })
    .fill("the counter");
  await mail.getByRole("button", { name: "Send it" }).press("Enter");
  await expect(mail.getByRole("alert")).toContainText("not an e-mail address");
  await mail
    .getByRole("textbox", { name: "To", exact: true })
    .fill("orders@paintcounter.example");
  await accessible(page, "the mail of an order");
  await mail.getByRole("button", { name: "Send it" }).press("Enter");
  await expect(mail).toHaveCount(0);
  await expect(order).toContainText("mail to orders@paintcounter.example");

  // Three come, dearer than ordered; the fourth does not.
  await order.getByRole("button", { name: /^Goods came/ }).press("Enter");
  const came = page.getByRole("dialog", { name: /^Goods came for PO/ });
  const cans = came.getByRole("textbox", {
    name: "Gull ceiling matt, 1 gal can: came",
  });
  await expect(cans).toHaveValue("4");
  await cans.fill("3");
  await came
    .getByRole("textbox", { name: "Gull ceiling matt, 1 gal can: paid" })
    .fill("99");
  await accessible(page, "goods that came");
  await came.getByRole("button", { name: "Take them in" }).press("Enter");
  await expect(came).toHaveCount(0);
  await expect(order).toContainText("3 of 4 came");
  await order.getByRole("button", { name: /^Close short/ }).press("Enter");
  await page.keyboard.type("sold out");
  await page.keyboard.press("Enter");
  await expect(order).toContainText("closed: sold out");

  // Used, more than is there only with a reason; then some is put back.
  await ceiling
    .getByRole("button", { name: "Move Gull ceiling matt" })
    .press("Enter");
  const moving = page.getByRole("dialog", { name: "Gull ceiling matt" });
  const much = moving.getByRole("textbox", { name: "How much" });
  await expect(much).toHaveValue("3");
  await much.fill("300");
  await much.press("Enter");
  await expect(moving.getByRole("alert")).toContainText(
    "say why more is taken",
  );
  await much.fill("3");
  await accessible(page, "goods that move");
  await much.press("Enter");
  await expect(moving).toHaveCount(0);
  await ceiling
    .getByRole("button", { name: "Move Gull ceiling matt" })
    .press("Enter");
  await moving.getByRole("radio", { name: /^Put back/ }).check();
  await much.fill("1.5");
  await much.press("Enter");
  await expect(moving).toHaveCount(0);
  // The gallery keeps 0.75 gal at 34.50, three came for 99.00: 1.5 of 3.75 gal, worth 124.875, stay with the job.
  await expect(
    sums.getByRole("listitem").filter({ hasText: "Used so far" }),
  ).toContainText("49.95");
  const moves = goods.getByRole("region", { name: "What moved" });
  await expect(moves.getByRole("listitem")).toHaveCount(3);
  await moves
    .getByRole("button", { name: /^Take back 1.5 gal/ })
    .press("Enter");
  await expect(moves).toContainText("taken back: 1.5 gal");

  // The firm's stock: counted, with what it differs by.
  await goods.getByRole("link", { name: "Stock list" }).press("Enter");
  const stock = page.getByRole("region", { name: "Stock list" });
  await stock.getByRole("textbox", { name: "Find goods" }).fill("ceiling");
  const row = stock.getByRole("row", { name: /Gull ceiling matt/ });
  await row
    .getByRole("button", { name: "Count Gull ceiling matt" })
    .press("Enter");
  const counting = page.getByRole("dialog", { name: "Gull ceiling matt" });
  await counting.getByRole("textbox", { name: "There are" }).fill("-1");
  await counting.getByRole("textbox", { name: "There are" }).press("Enter");
  await expect(counting.getByRole("alert")).toBeVisible();
  await counting.getByRole("textbox", { name: "There are" }).fill("7.25");
  await counting.getByRole("textbox", { name: "There are" }).press("Enter");
  await expect(counting).toHaveCount(0);
  await expect(row).toContainText("7.25 gal");
  await row
    .getByRole("button", { name: "History of Gull ceiling matt" })
    .press("Enter");
  await expect(
    stock.getByRole("region", { name: "What happened to Gull ceiling matt" }),
  ).toContainText("7.25 gal counted");
  await accessible(page, "the stock list");

  // Goods of the Book come for no job.
  await stock.getByRole("button", { name: "Add goods" }).press("Enter");
  const adding = page.getByRole("dialog", { name: "Add goods" });
  await adding
    .getByRole("combobox", { name: "Goods of the Book" })
    .selectOption({ label: "Harbour eggshell" });
  await adding.getByRole("textbox", { name: "Colour" }).fill("Storm grey");
  await adding.getByRole("radio", { name: /^Came/ }).check();
  await adding.getByRole("textbox", { name: "How much" }).fill("2");
  await adding.getByRole("textbox", { name: "Paid" }).fill("90");
  await adding.getByRole("button", { name: "Write it" }).press("Enter");
  await expect(adding).toHaveCount(0);
  await stock.getByRole("textbox", { name: "Find goods" }).fill("storm");
  await expect(
    stock.getByRole("row", { name: /Harbour eggshell, Storm grey/ }),
  ).toContainText("45.00");
});

test("suppliers are kept in the office, and orders are numbered unlike invoices", async ({
  page,
}) => {
  await page.goto("/office");
  const office = page.getByRole("region", {
    name: "Purchase orders and suppliers",
  });
  const numbers = office.getByRole("textbox", {
    name: "How orders are numbered",
  });
  const was = await numbers.inputValue();
  await numbers.fill("{year}-{number}");
  await numbers.press("Enter");
  await expect(office).toContainText("could have the number of an invoice");
  await numbers.fill(was);
  await numbers.press("Enter");
  await expect(office).not.toContainText("could have the number of an invoice");
  await office.getByRole("button", { name: "Add a supplier" }).press("Enter");
  const mail = office.getByRole("textbox", { name: "E-mail of New supplier" });
  await mail.fill("nobody");
  await mail.press("Enter");
  await expect(office).toContainText("not an e-mail address");
  await mail.fill("desk@slatelane.example");
  await mail.press("Enter");
  await expect(office).not.toContainText("not an e-mail address");
  await accessible(page, "suppliers");
  await page.reload();
  await expect(mail).toHaveValue("desk@slatelane.example");
  await office
    .getByRole("button", { name: "Remove New supplier" })
    .press("Enter");
  await expect(mail).toHaveCount(0);
});
