using Emendum.Core.Quantities;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Emendum.Web.Jobs;

namespace Emendum.Web;

/// <summary>Fills a new data folder.</summary>
public static class FirstStart
{
    /// <summary>The firm and its Book, and with <paramref name="demo"/> the demo jobs. Does nothing where there is a firm already.</summary>
    public static void Fill(IServiceProvider services, bool demo)
    {
        var companies = services.GetRequiredService<CompanyStore>();
        if (companies.Get() is not null) return;
        services.GetRequiredService<BookStore>().Add(StarterBook.Entries, "the owner", DateTime.UtcNow);
        if (demo)
        {
            var customer = new Customer(StarterBook.Id(900), "Saltmarsh Lending Library Trust", "2 Causeway Road, Port Ennis", "office@saltmarsh-library.example", "555 0134");
            services.GetRequiredService<CustomerStore>().Put(customer);
            var trust = new Customer(StarterBook.Id(901), "Hollin Botanic Trust", "Hollin Lane, Port Ennis", "garden@hollin-trust.example", "555 0171");
            services.GetRequiredService<CustomerStore>().Put(trust);
            var today = DateTime.UtcNow.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
            services.GetRequiredService<OpenJobs>().Create(CourtJob.Build(StarterBook.Id(998), trust.Id, today));
            services.GetRequiredService<OpenJobs>().Create(LibraryJob.Build(StarterBook.Id(999), customer.Id, today));
        }
        companies.Create(new("Larkspur & Pell Finishing", "7 Ropewalk, Port Ennis", "USD", UnitSystem.Feet, "net"), 2042);
    }
}
