import { expect, test } from "./test";
import { accessible } from "./pages";
import { accepted, phone } from "./sendPages";
import { addEverywhere, rooms } from "./workPages";

test("with the yes a crew has its order on the telephone, ticks and writes hours, and the office sees both as they happen", async ({
  page,
  browser,
}) => {
  await rooms(page, "Sandpiper Terrace", 3);
  await addEverywhere(page, "Walls Paint", "Ceilings Paint");
  await page.keyboard.press("Alt+5");
  await expect(page.getByText("Nothing was accepted yet")).toBeVisible();
  await accepted(page);
  await page.keyboard.press("Alt+5");
  const order = page.getByRole("region", { name: "Work order" });
  const first = order.getByRole("region", { name: "Room 1", exact: true });
  await expect(first).toContainText("0 of 2 done");
  await accessible(page, "the work order");

  // The office ticks one and says that a part of another is done, by keys.
  await first
    .getByRole("checkbox", { name: "Paint, 2 coats, Room 1: done" })
    .first()
    .press("Space");
  await expect(first).toContainText("1 of 2 done");
  await first
    .getByRole("button", { name: /^How much of Paint.*, Room 1,/ })
    .last()
    .press("Enter");
  const part = page.getByRole("dialog");
  await part.getByRole("textbox").fill("101");
  await part.getByRole("textbox").press("Enter");
  await expect(part.getByRole("alert")).toContainText("0 to 100 %");
  await part.getByRole("textbox").fill("60");
  await part.getByRole("textbox").press("Enter");
  await expect(part).toHaveCount(0);
  await expect(first).toContainText("60 % done");

  // A link for one section; its address is said once.
  const links = page.getByRole("region", { name: "Crews' pages" });
  await links.getByRole("button", { name: "New link" }).press("Enter");
  await page.keyboard.type("Idris");
  const making = page.getByRole("dialog");
  await making.getByRole("checkbox", { name: "Walls" }).press("Space");
  await accessible(page, "a crew's new link");
  await making.getByRole("button", { name: "Make the link" }).press("Enter");
  const made = page.getByRole("dialog", { name: "The link of Idris" });
  const address = await made.getByRole("link").innerText();
  await page.keyboard.press("Escape");
  await expect(made).toHaveCount(0);
  await expect(links).toContainText("Walls");

  const crew = await phone(browser, address);
  const lobby = crew.getByRole("region", { name: "Room 2", exact: true });
  await expect(lobby).toContainText("0 of 1 done");
  await expect(crew.getByText("Ceilings")).toHaveCount(0);
  await accessible(crew, "a crew's page");
  await lobby.getByRole("checkbox").press("Space");
  await expect(lobby).toContainText("1 of 1 done");
  await expect(lobby).toContainText("done: Idris");
  // The office has it without asking.
  await expect(
    order.getByRole("region", { name: "Room 2", exact: true }),
  ).toContainText("done: Idris");

  // Hours by keys; what is refused stays beside its field.
  await crew.getByRole("button", { name: "Hours", exact: true }).press("Enter");
  const hours = crew.getByRole("textbox", { name: "Hours" });
  await crew
    .getByRole("combobox", { name: "On" })
    .selectOption({ label: "Walls: Paint" });
  await crew
    .getByRole("combobox", { name: "Where" })
    .selectOption({ label: "Room 2" });
  await hours.fill("30");
  await hours.press("Enter");
  await expect(crew.getByRole("alert")).toContainText("at most 24");
  await expect(hours).toHaveValue("30");
  await accessible(crew, "hours that are refused");
  await hours.fill("2.5");
  await hours.press("Enter");
  const written = crew.getByRole("region", { name: "Hours written here" });
  await expect(written).toContainText("2.5 h Idris");
  await expect(hours).toHaveValue("");

  // Used against allowed, in the office.
  await page.getByRole("button", { name: "Hours used" }).press("Enter");
  const used = page.getByRole("region", { name: "Hours used", exact: true });
  const walls = used.getByRole("row", { name: /^Walls: Paint/ });
  await expect(walls).toContainText("2.5");
  await expect(walls).toContainText("left out of the rate", {
    ignoreCase: true,
  });
  await expect(
    page.getByRole("list", { name: "Hours by person" }),
  ).toContainText("Idris");
  await page.getByRole("button", { name: "Write hours" }).press("Enter");
  const writing = page.getByRole("dialog", { name: "Write hours" });
  await writing.getByRole("textbox", { name: "Who" }).fill("Wyn");
  await writing.getByRole("textbox", { name: "Hours" }).fill("1.25");
  await writing
    .getByRole("combobox", { name: "For" })
    .selectOption({ label: "set-up and travel" });
  await writing.getByRole("button", { name: "Write them" }).press("Enter");
  await expect(writing).toHaveCount(0);
  await expect(used.getByRole("row", { name: /^Set-up/ })).toContainText("1.3");
  await accessible(page, "hours used");

  // Taken back on the telephone, it is gone in the office.
  await written
    .getByRole("button", { name: /^Take back 2\.5 h of Idris/ })
    .press("Enter");
  await expect(written).toContainText("Nothing yet.");
  await expect(
    page.getByRole("list", { name: "Hours written" }),
  ).not.toContainText("2.5 h");

  // The office looks at the page, and revokes the link.
  await page.getByRole("button", { name: "Work order" }).press("Enter");
  const look = await page
    .getByRole("link", { name: "Look at the page of Idris" })
    .getAttribute("href");
  const looked = await page.context().newPage();
  await looked.goto(look!);
  await expect(looked.getByText("What the crew sees")).toBeVisible();
  await expect(looked.getByRole("checkbox").first()).toBeDisabled();
  await looked.close();
  await page
    .getByRole("button", { name: "Revoke the link of Idris" })
    .press("Enter");
  await page.getByRole("button", { name: "Revoke it" }).press("Enter");
  await expect(links).toContainText("revoked");
  await crew.reload();
  await expect(
    crew.getByRole("heading", { name: "Nothing here" }),
  ).toBeVisible();
  await crew.context().close();
});
