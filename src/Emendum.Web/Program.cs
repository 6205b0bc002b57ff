using System.Net;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Storage;
using Emendum.Web;
using Emendum.Web.Books;
using Emendum.Web.Deliver;
using Emendum.Web.Jobs;
using Emendum.Web.Mails;
using Emendum.Web.Outside;
using Emendum.Web.StandIns;
using Microsoft.AspNetCore.DataProtection;

var builder = WebApplication.CreateBuilder(args);
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.Logging.AddFilter("Microsoft.AspNetCore.Diagnostics", LogLevel.Error);

// It says each time that keys are not encrypted themselves: the folder is its owner's alone.
builder.Logging.AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error);
var port = builder.Configuration.GetValue("port", 5080);
var time = TimeProvider.System;
DataFolder folder;
Database database;
FileStore files;
PublicOptions? outside;
try
{
    outside = PublicOptions.Of(builder.Configuration);
    folder = DataFolder.Hold(builder.Configuration["data"] ?? DataFolder.Usual);
    var demo = builder.Configuration.GetValue("demo", true);
    files = FileStore.Open(folder.Path);
    database = Database.Open(folder.Path, fresh => FirstStart.Fill(fresh, files, demo, time));
    FirstStart.Complete(database, files, demo, time);
}
catch (RefusedException refused)
{
    Console.Error.WriteLine(refused.Message);
    return 1;
}
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.Listen(IPAddress.Loopback, port);
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxConcurrentUpgradedConnections = Live.MostConnections;
});
builder.Services.ConfigureHttpJsonOptions(json => CoreJson.Apply(json.SerializerOptions));
builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
builder.Services.AddResponseCompression();
builder.Services.AddProblemDetails();
builder.Services.AddOpenApi(ApiDescription.Configure);
builder.Services.AddSignalR();

// Keys stand beside the data, readable by its owner only as all of that folder, and in no backup.
builder
    .Services.AddDataProtection()
    .SetApplicationName("Emendum")
    .PersistKeysToFileSystem(new(Path.Combine(folder.Path, "keys")));
builder.Services.AddSingleton(database).AddSingleton(files).AddSingleton(folder).AddSingleton(time);
builder
    .Services.AddSingleton<JobStore>()
    .AddSingleton<CustomerStore>()
    .AddSingleton<RevisionStore>()
    .AddSingleton<ScheduledStore>()
    .AddSingleton<MailStore>()
    .AddSingleton<Pictures>()
    .AddSingleton<OutgoingMail>()
    .AddSingleton<MailPassword>()
    .AddSingleton<Postman>()
    .AddHostedService(services => services.GetRequiredService<Postman>())
    .AddSingleton<LinkStore>()
    .AddSingleton<OutsideAddress>()
    .AddSingleton<Told>()
    .AddSingleton<AcceptanceStore>()
    .AddSingleton<Signings>()
    .AddSingleton<FrozenRevisions>()
    .AddSingleton<WorkOrderStore>()
    .AddSingleton<SiteStore>()
    .AddSingleton<WorkOrders>()
    .AddSingleton<Site>()
    .AddSingleton<InvoiceStore>()
    .AddSingleton<Invoicing>()
    .AddSingleton<BankStore>()
    .AddSingleton<Bank>()
    .AddSingleton<ChangeOrders>()
    .AddSingleton<NumberStore>()
    .AddSingleton<IssuedPdfs>()
    .AddSingleton<OrderStore>()
    .AddSingleton<StockStore>()
    .AddSingleton<Buying>()
    .AddSingleton<CompletionStore>()
    .AddSingleton<Completing>()
    .AddSingleton<ScheduleStore>()
    .AddSingleton<CrewDays>()
    .AddSingleton<Scheduling>()
    .AddSingleton<Rounds>()
    .AddSingleton<BookStore>()
    .AddSingleton<CompanyStore>()
    .AddSingleton<SettingStore>()
    .AddSingleton<Watchers>()
    .AddSingleton<OpenJobs>()
    .AddSingleton<Live>()
    .AddSingleton<FirmDay>()
    .AddSingleton<Shelf>()
    .AddSingleton<OtherBooks>()
    .AddSingleton<Backups>()
    .AddHostedService(services => services.GetRequiredService<Backups>())
    .AddSingleton<Departures>()
    .AddHostedService(services => services.GetRequiredService<Departures>())
    .AddSingleton<ISupplierFeed, StandInSupplierFeed>()
    .AddSingleton<ISupplierCatalogue, StandInSupplierCatalogue>();

var app = builder.Build();
app.UseResponseCompression();
app.UseMiddleware<Refusals>();
app.UseMiddleware<Doors>();
app.UseMiddleware<Bodies>();
var client = builder.Configuration["client"] is { } built && Directory.Exists(built) ? built : null;
if (client is not null)
    ClientFiles.Serve(app, client);
app.MapOpenApi("/api/openapi.json");
var api = app.MapGroup("").AddEndpointFilter(Refusals.Binds);
api.MapCompany();
api.MapCustomers();
api.MapBackups();
api.MapFiles();
api.MapOutbox();
api.MapMailServer();
api.MapNumbers();
api.MapStock();
api.MapBank();
api.MapCrews();
api.MapJobs();
api.MapTables();
api.MapBook();
app.MapHub<LiveHub>(LiveHub.Path);
app.Services.GetRequiredService<OpenJobs>().Moved += app.Services.GetRequiredService<Live>().Tell;
app.Services.GetRequiredService<Departures>().Happened += app.Services.GetRequiredService<Live>().Happened;
app.Map("/api/{**rest}", () => Results.Problem(statusCode: 404, title: "There is nothing here."));

if (!await Starts(app, port))
    return 1;
var address = $"http://127.0.0.1:{new Uri(app.Urls.First()).Port}/";
folder.Serves(address);
await using var publicDoor = outside is null ? null : PublicDoor.Of(app.Services, outside, client);
if (publicDoor is not null)
{
    if (!await Starts(publicDoor, outside!.Port))
        return 1;
    app.Services.GetRequiredService<OutsideAddress>()
        .Set(outside.Address ?? $"http://127.0.0.1:{new Uri(publicDoor.Urls.First()).Port}");
}
Console.WriteLine($"Emendum is at {address}  (Ctrl+C stops it)");
if (publicDoor is not null)
    Console.WriteLine($"Customers reach their pages at {publicDoor.Urls.First()}/");
await app.WaitForShutdownAsync();
if (publicDoor is not null)
    await publicDoor.StopAsync();
database.Close();
files.Close();
folder.Dispose();
return 0;

static async Task<bool> Starts(WebApplication app, int port)
{
    try
    {
        await app.StartAsync();
        return true;
    }
    catch (IOException wrong) when (wrong.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException)
    {
        Console.Error.WriteLine(
            $"Port {port} is in use by another program. Choose another with --port N or --public N."
        );
        return false;
    }
}

/// <summary>The program, for tests.</summary>
public partial class Program;
