using System.Net;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Json;
using Emendum.Storage;
using Emendum.Web;
using Emendum.Web.Books;
using Emendum.Web.Jobs;
using Emendum.Web.StandIns;

var builder = WebApplication.CreateBuilder(args);
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.Logging.AddFilter("Microsoft.AspNetCore.Diagnostics", LogLevel.Error);
var port = builder.Configuration.GetValue("port", 5080);
var time = TimeProvider.System;
DataFolder folder;
Database database;
FileStore files;
try
{
    folder = DataFolder.Hold(builder.Configuration["data"] ?? DataFolder.Usual);
    var demo = builder.Configuration.GetValue("demo", true);
    database = Database.Open(folder.Path, fresh => FirstStart.Fill(fresh, demo, time));
    files = FileStore.Open(folder.Path);
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
builder.Services.AddSingleton(database).AddSingleton(files).AddSingleton(folder).AddSingleton(time);
builder
    .Services.AddSingleton<JobStore>()
    .AddSingleton<CustomerStore>()
    .AddSingleton<RevisionStore>()
    .AddSingleton<MailStore>()
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
    .AddSingleton<ISupplierFeed, StandInSupplierFeed>()
    .AddSingleton<ISupplierCatalogue, StandInSupplierCatalogue>();

var app = builder.Build();
app.UseResponseCompression();
app.UseMiddleware<Refusals>();
app.UseMiddleware<Doors>();
app.UseMiddleware<Bodies>();
if (builder.Configuration["client"] is { } client && Directory.Exists(client))
    ClientFiles.Serve(app, client);
app.MapOpenApi("/api/openapi.json");
var api = app.MapGroup("").AddEndpointFilter(Refusals.Binds);
api.MapCompany();
api.MapCustomers();
api.MapBackups();
api.MapFiles();
api.MapOutbox();
api.MapJobs();
api.MapTables();
api.MapBook();
app.MapHub<LiveHub>(LiveHub.Path);
app.Services.GetRequiredService<OpenJobs>().Moved += app.Services.GetRequiredService<Live>().Tell;
app.Map("/api/{**rest}", () => Results.Problem(statusCode: 404, title: "There is nothing here."));

try
{
    await app.StartAsync();
}
catch (IOException wrong) when (wrong.InnerException is Microsoft.AspNetCore.Connections.AddressInUseException)
{
    Console.Error.WriteLine($"Port {port} is in use by another program. Choose another with --port N.");
    return 1;
}
var address = $"http://127.0.0.1:{new Uri(app.Urls.First()).Port}/";
folder.Serves(address);
Console.WriteLine($"Emendum is at {address}  (Ctrl+C stops it)");
await app.WaitForShutdownAsync();
database.Close();
files.Close();
folder.Dispose();
return 0;

/// <summary>The program, for tests.</summary>
public partial class Program;
