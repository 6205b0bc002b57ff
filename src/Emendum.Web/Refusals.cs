using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Storage;
using Emendum.Web.Jobs;
using Emendum.Web.Outside;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Data.Sqlite;

namespace Emendum.Web;

/// <summary>Turns every refusal into a problem document; nobody is ever shown a stack trace.</summary>
public sealed class Refusals(RequestDelegate next, ILogger<Refusals> log)
{
    /// <summary>Runs the request.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        try
        {
            await next(context);
        }
        catch (Exception wrong) when (!context.Response.HasStarted)
        {
            await (
                wrong switch
                {
                    RefusedException refused => Write(
                        context,
                        422,
                        refused.Refusal.Message,
                        ("field", refused.Refusal.Field),
                        ("position", refused.Refusal.Position),
                        ("suggestion", refused.Refusal.Suggestion),
                        ("remedies", refused.Refusal.Remedies)
                    ),
                    ConflictException conflict => Write(
                        context,
                        409,
                        "This has changed since you saw it. What stands there now is shown.",
                        ("field", conflict.Field),
                        ("current", conflict.Current)
                    ),
                    BusyException busy => Write(context, 503, busy.Message),
                    LinkEndedException ended => Write(context, 410, ended.Message),
                    NotThereException missing => Write(context, 404, missing.Message),
                    BadHttpRequestException { InnerException: PlainJsonException plain } => Write(
                        context,
                        400,
                        plain.Message,
                        ("field", FieldOf(plain))
                    ),
                    BadHttpRequestException => Write(context, 400, "The request cannot be read."),
                    // Until the operation has what it needs, a fault of JSON is the sender's; later it would be ours. The reader of .NET 10.0 runs out of its bounds where a text in several pieces breaks off within
                    // a true, false or null.
                    JsonException
                    or NotSupportedException
                    or InvalidOperationException
                    or IndexOutOfRangeException when !IsBound(context) => Write(
                        context,
                        400,
                        "The request cannot be read."
                    ),
                    SqliteException stored when Database.Says(stored) is { } says => Write(
                        context,
                        stored.SqliteErrorCode == DiskFull ? 507 : 500,
                        $"Nothing was kept. The database cannot be used: {says}."
                    ),
                    OperationCanceledException => Task.CompletedTask,
                    _ => Unexpected(context, wrong),
                }
            );
        }
    }

    /// <summary>SQLITE_FULL.</summary>
    private const int DiskFull = 13;

    private static string FieldOf(JsonException wrong) =>
        (wrong.Path ?? "").Split('.', '[')[^1].TrimStart('$').TrimEnd(']');

    private static readonly object Bound = new();

    /// <summary>Remembers that the request has been read: what goes wrong from there on is not the sender's.</summary>
    public static ValueTask<object?> Binds(EndpointFilterInvocationContext invocation, EndpointFilterDelegate next)
    {
        invocation.HttpContext.Items[Bound] = Bound;
        return next(invocation);
    }

    private static bool IsBound(HttpContext context) => context.Items.ContainsKey(Bound);

    private Task Unexpected(HttpContext context, Exception wrong)
    {
        // Which operation, and not which path: that may hold what opens a customer's page.
        log.LogError(wrong, "Unexpected failure at {Operation}", context.GetEndpoint()?.DisplayName);
        return Write(context, 500, "Something went wrong on our side. Nothing was changed.");
    }

    internal static Task Write(
        HttpContext context,
        int status,
        string title,
        params (string Name, object? Value)[] more
    )
    {
        var problem = new ProblemDetails { Status = status, Title = title };
        foreach (var (name, value) in more)
            if (value is not null)
                problem.Extensions[name] = value;
        return Results.Problem(problem).ExecuteAsync(context);
    }
}
