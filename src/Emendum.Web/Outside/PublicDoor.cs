using System.Globalization;
using System.Net;
using System.Threading.RateLimiting;
using Emendum.Core;
using Emendum.Core.Json;
using Emendum.Storage;
using Emendum.Web.Deliver;
using Emendum.Web.Jobs;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.RateLimiting;

namespace Emendum.Web.Outside;

/// <summary>How the door to the outside is opened.</summary>
/// <param name="Port">Port on this machine; 0 for any that is free.</param>
/// <param name="Address">Where people outside reach it, through whatever stands before it; null for this machine itself.</param>
/// <param name="Proxy">Address of what stands before it, whose word counts for who asks; null for nobody's.</param>
/// <param name="PerMinute">Most requests of one address in a minute.</param>
public sealed record PublicOptions(int Port, string? Address, IPAddress? Proxy, int PerMinute)
{
    /// <summary>Most requests of one address in a minute, unless somebody says otherwise.</summary>
    public const int UsualPerMinute = 300;

    /// <summary>What the program was started with; null where it has no door to the outside.</summary>
    /// <exception cref="RefusedException">Something of it is not what it should be.</exception>
    public static PublicOptions? Of(IConfiguration said)
    {
        if (said["public"] is not { } port)
        {
            if ((said["public-address"] ?? said["public-proxy"] ?? said["public-rate"]) is null)
                return null;
            throw RefusedException.Of("public", "Say --public N too: the port of the door to the outside.");
        }
        return new(
            Whole(port, 0, 65_535, "--public takes a port, 0 to 65535."),
            said["public-address"] is { } address ? CheckedAddress(address) : null,
            said["public-proxy"] is not { } proxy ? null
                : IPAddress.TryParse(proxy, out var of) ? of
                : throw RefusedException.Of("public", "--public-proxy takes an address like 10.0.0.2."),
            said["public-rate"] is { } rate
                ? Whole(rate, 1, 1_000_000, "--public-rate takes a number of requests a minute.")
                : UsualPerMinute
        );
    }

    private static int Whole(string text, int least, int most, string wrong) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
        && number >= least
        && number <= most
            ? number
            : throw RefusedException.Of("public", wrong);

    private static string CheckedAddress(string text) =>
        Uri.TryCreate(text, UriKind.Absolute, out var uri)
        && uri is { Scheme: "http" or "https", Query: "", Fragment: "", UserInfo: "" }
            ? text
            : throw RefusedException.Of("public", "--public-address takes an address like https://proposals.example.");
}

/// <summary>
/// The door to the outside (architecture decision 32): a listener of its own that knows the pages of customers and crews and nothing else. It shares the stores with the program inside, and none of its operations.
/// </summary>
public static class PublicDoor
{
    private const string Pages = "/outside";

    /// <summary>Most connections at once.</summary>
    private const int MostConnections = 1000;

    /// <summary>Makes it; it is not open yet.</summary>
    /// <param name="inside">The services of the program inside.</param>
    /// <param name="options">How it is opened.</param>
    /// <param name="client">Folder of the client's files; null for none.</param>
    public static WebApplication Of(IServiceProvider inside, PublicOptions options, string? client)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders().AddSimpleConsole().SetMinimumLevel(LogLevel.Warning);
        builder.Logging.AddFilter("Microsoft.AspNetCore.Diagnostics", LogLevel.Error);
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.Listen(IPAddress.Loopback, options.Port);
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxConcurrentConnections = MostConnections;
        });
        builder.Services.ConfigureHttpJsonOptions(json => CoreJson.Apply(json.SerializerOptions));
        builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
        builder.Services.AddResponseCompression();
        // No number of the request: what opens nothing and what was revoked are answered by the same bytes (L20).
        builder.Services.AddProblemDetails(says =>
            says.CustomizeProblemDetails = context => context.ProblemDetails.Extensions.Remove("traceId")
        );
        builder.Services.AddRateLimiter(limits => Limit(limits, options.PerMinute));
        builder
            .Services.AddSingleton(inside.GetRequiredService<TimeProvider>())
            .AddSingleton(inside.GetRequiredService<LinkStore>())
            .AddSingleton(inside.GetRequiredService<RevisionStore>())
            .AddSingleton(inside.GetRequiredService<FileStore>())
            .AddSingleton(inside.GetRequiredService<Pictures>())
            .AddSingleton(inside.GetRequiredService<FirmDay>())
            .AddSingleton(inside.GetRequiredService<Live>())
            .AddSingleton(inside.GetRequiredService<Signings>())
            .AddSingleton(inside.GetRequiredService<WorkOrders>())
            .AddSingleton(inside.GetRequiredService<WorkOrderStore>())
            .AddSingleton(inside.GetRequiredService<SiteStore>())
            .AddSingleton<CustomerEndpoints.Behind>()
            .AddSingleton(inside.GetRequiredService<ScheduleStore>())
            .AddSingleton(inside.GetRequiredService<SettingStore>())
            .AddSingleton(inside.GetRequiredService<CompletionStore>())
            .AddSingleton<CrewDays>()
            .AddSingleton(inside.GetRequiredService<Rounds>())
            .AddSingleton<CrewEndpoints.Behind>();
        var app = builder.Build();
        if (options.Proxy is { } proxy)
            app.UseForwardedHeaders(Forwarded(proxy));
        app.Use(Headers);
        app.UseRateLimiter();
        app.UseResponseCompression();
        if (client is not null)
            ClientFiles.Send(app, Path.Combine(client, Pages[1..]), Pages);
        app.UseRouting();
        app.UseMiddleware<Refusals>();
        app.UseMiddleware<Bodies>();
        var pages = app.MapGroup("").AddEndpointFilter(Refusals.Binds);
        pages.MapCustomersPage();
        pages.MapCrewsPage();
        pages.MapCalendars();
        if (client is not null)
            // The page itself is the same for every token: what it shows, or that it shows nothing, it has to ask for.
            foreach (
                var (path, page) in new[] { (CustomerEndpoints.Path, "index.html"), (CrewEndpoints.Path, "crew.html") }
            )
                app.MapGet(
                    path + "/{token:length(1,64)}",
                    () => Results.File(Path.GetFullPath(Path.Combine(client, Pages[1..], page)), "text/html")
                );
        app.Map("/{**rest}", () => Results.Problem(statusCode: 404, title: "There is nothing here."));
        return app;
    }

    /// <summary>Who asks is what this one proxy says, and what nobody else does.</summary>
    private static ForwardedHeadersOptions Forwarded(IPAddress proxy)
    {
        var said = new ForwardedHeadersOptions { ForwardedHeaders = ForwardedHeaders.XForwardedFor, ForwardLimit = 1 };
        said.KnownProxies.Clear();
        said.KnownIPNetworks.Clear();
        said.KnownProxies.Add(proxy);
        return said;
    }

    private static Task Headers(HttpContext context, RequestDelegate next)
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Doors.Content;
        headers.XContentTypeOptions = "nosniff";
        // The address of a page is what opens it: it is told to nobody, and found by no search.
        headers["Referrer-Policy"] = "no-referrer";
        headers["X-Robots-Tag"] = "noindex";
        headers.CacheControl = "no-store";
        return next(context);
    }

    private static void Limit(RateLimiterOptions limits, int perMinute)
    {
        limits.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
        limits.OnRejected = (rejected, _) =>
            new(
                Results
                    .Problem(statusCode: 429, title: "That was a lot at once. Please try again in a minute.")
                    .ExecuteAsync(rejected.HttpContext)
            );
        limits.GlobalLimiter = PartitionedRateLimiter.Create<HttpContext, string>(context =>
            RateLimitPartition.GetTokenBucketLimiter(
                WhoAsks(context.Connection.RemoteIpAddress),
                _ =>
                    new()
                    {
                        TokenLimit = perMinute,
                        TokensPerPeriod = Math.Max(1, perMinute / 6),
                        ReplenishmentPeriod = TimeSpan.FromSeconds(10),
                        AutoReplenishment = true,
                    }
            )
        );
    }

    /// <summary>Who shares a limit: one address, and of IPv6 the network that one household has (64 bits).</summary>
    private static string WhoAsks(IPAddress? address) =>
        address is { AddressFamily: System.Net.Sockets.AddressFamily.InterNetworkV6, IsIPv4MappedToIPv6: false }
            ? Convert.ToHexString(address.GetAddressBytes().AsSpan(0, 8))
            : address?.MapToIPv4().ToString() ?? "";
}
