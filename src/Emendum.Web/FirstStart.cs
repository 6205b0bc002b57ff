using Emendum.Core;
using Emendum.Core.Proposals;
using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Emendum.Web.Jobs;
using Microsoft.Data.Sqlite;

namespace Emendum.Web;

/// <summary>Fills a new data folder.</summary>
public static class FirstStart
{
    /// <summary>Completes what an older version left half, and says on the console what cannot be read.</summary>
    /// <exception cref="RefusedException">The database cannot be read at all; says why.</exception>
    public static void Complete(Database database, FileStore files, bool demo, TimeProvider time)
    {
        try
        {
            Fill(database, files, demo, time);
            new JobStore(database).MoveCustomers();
            foreach (
                var picture in BookPictures.Move(database, files, FileEndpoints.Kind, time.GetUtcNow().UtcDateTime)
            )
                Console.Error.WriteLine($"The picture {picture} of the Book {LeftOut}");
            foreach (var entry in new BookStore(database).Unread())
                Console.Error.WriteLine($"The Book's entry {entry} {LeftOut}");
            foreach (var job in new JobStore(database).Unread())
                Console.Error.WriteLine($"The job {job} {LeftOut}");
        }
        catch (SqliteException wrong)
        {
            throw database.Refused(wrong);
        }
    }

    private const string LeftOut =
        "cannot be read and is left out. It is still in the database; a backup may have it whole.";

    /// <summary>The firm and its Book, and with <paramref name="demo"/> the demo jobs, each where it is not there yet: an older version may have been stopped half way. Does nothing where
    /// there is a firm.</summary>
    public static void Fill(Database database, FileStore files, bool demo, TimeProvider time)
    {
        var (companies, book, jobs) = (new CompanyStore(database), new BookStore(database), new JobStore(database));
        if (companies.Get() is not null)
            return;
        var there = book.List().Select(e => e.Id).ToHashSet();
        book.Add(StarterBook.Entries.Where(e => !there.Contains(e.Id)), "the owner", time.GetUtcNow().UtcDateTime);
        if (demo)
        {
            Guid Customer(int number, string name, string address, string email, string phone)
            {
                var customer = new Customer(StarterBook.Id(number), name, address, email, phone);
                new CustomerStore(database).Put(customer);
                return customer.Id;
            }
            var library = Customer(
                900,
                "Saltmarsh Lending Library Trust",
                "2 Causeway Road, Port Ennis",
                "office@saltmarsh-library.example",
                "555 0134"
            );
            var trust = Customer(
                901,
                "Hollin Botanic Trust",
                "Hollin Lane, Port Ennis",
                "garden@hollin-trust.example",
                "555 0171"
            );
            var clinic = Customer(
                902,
                "Quayside Veterinary Clinic",
                "14 Quayside, Port Ennis",
                "desk@quayside-vets.example",
                "555 0152"
            );
            var pottery = Customer(
                903,
                "Marrow Street Pottery",
                "31 Marrow Street, Port Ennis",
                "kiln@marrow-street.example",
                "555 0166"
            );
            new SettingStore(database).Put(
                MessageTexts.Setting,
                MessageTexts.Starting with
                {
                    From = "proposals@larkspur-pell.example",
                }
            );
            var firm = new FirmDay(time, companies);
            string Ago(int days) => FirmDay.Write(firm.Today.AddDays(-days));
            foreach (var picture in DemoPictures.All)
            {
                using var content = new MemoryStream(picture);
                var now = time.GetUtcNow().UtcDateTime;
                var kept = files.Take(content, FileEndpoints.Kind, now, default).GetAwaiter().GetResult();
                files.Name(kept.Hash);
            }
            var began = FirmDay.Write(DemoJobs.RoundBegan(firm.Today));
            foreach (var job in DemoJobs.Build(pottery, clinic, trust, library, Ago, began).OrderBy(j => j.Info.Number))
                if (!jobs.Has(job.Id))
                    new OpenJobs(jobs, time, new()).Create(job);
            new DemoProposals(database, files, firm).Record();
        }
        companies.Create(
            new(
                "Larkspur & Pell Finishing",
                "7 Ropewalk, Port Ennis",
                "USD",
                UnitSystem.Feet,
                "net",
                FirmDay.OfThisMachine
            ),
            2042
        );
    }
}
