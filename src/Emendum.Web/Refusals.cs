using System.Text.Json;
using Emendum.Core;
using Emendum.Core.Jobs;
using Emendum.Web.Jobs;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Mvc;

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
                    NotThereException missing => Write(context, 404, missing.Message),
                    BadHttpRequestException { StatusCode: 413 } large => Write(
                        context,
                        413,
                        large.Message.StartsWith("That is", StringComparison.Ordinal)
                            ? large.Message
                            : "That is too large.",
                        ("field", "file")
                    ),
                    BadHttpRequestException or JsonException => Write(context, 400, "The request cannot be read."),
                    OperationCanceledException => Task.CompletedTask,
                    _ => Unexpected(context, wrong),
                }
            );
        }
    }

    private Task Unexpected(HttpContext context, Exception wrong)
    {
        log.LogError(wrong, "Unexpected failure at {Path}", context.Request.Path);
        return Write(context, 500, "Something went wrong on our side. Nothing was changed.");
    }

    private static Task Write(HttpContext context, int status, string title, params (string Name, object? Value)[] more)
    {
        var problem = new ProblemDetails { Status = status, Title = title };
        foreach (var (name, value) in more)
            if (value is not null)
                problem.Extensions[name] = value;
        return Results.Problem(problem).ExecuteAsync(context);
    }
}

/// <summary>Answers only requests meant for this machine: a page from elsewhere cannot reach in by name or by form (architecture decision 16).</summary>
public sealed class OwnHostOnly(RequestDelegate next)
{
    private static readonly string[] Own = ["127.0.0.1", "localhost", "[::1]"];

    /// <summary>Runs the request or refuses it.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        var origin = context.Request.Headers.Origin.ToString();
        var fits =
            Own.Contains(context.Request.Host.Host)
            && (
                origin.Length == 0
                || (
                    Uri.TryCreate(origin, UriKind.Absolute, out var from)
                    && from.Authority == context.Request.Host.Value
                )
            );
        return fits
            ? next(context)
            : Results.Problem(statusCode: 403, title: "Only pages of this program may ask it.").ExecuteAsync(context);
    }
}
