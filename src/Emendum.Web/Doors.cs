namespace Emendum.Web;

/// <summary>
/// Who may ask, and what a browser may do with the answer. Until people sign in the program answers only this machine, by its own name, and only its own pages: a page from elsewhere can neither reach in by
/// script or form nor show ours within its own (architecture decision 16).
/// </summary>
public sealed class Doors(RequestDelegate next)
{
    private static readonly string[] Own = ["127.0.0.1", "localhost", "[::1]"];

    /// <summary>What pages may load: nothing from elsewhere. Styles made by script need the one exception.</summary>
    public const string Content =
        "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' blob: data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    /// <summary>Runs the request or refuses it.</summary>
    public Task InvokeAsync(HttpContext context)
    {
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Content;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        // Files of the client carry a hash in their names and may be kept; what the firm knows, and the page that names those files, may not.
        if (!context.Request.Path.StartsWithSegments("/assets"))
            headers.CacheControl = "no-store";
        return Own.Contains(context.Request.Host.Host) && FromHere(context.Request)
            ? next(context)
            : Results.Problem(statusCode: 403, title: "Only pages of this program may ask it.").ExecuteAsync(context);
    }

    /// <summary>Whether a request comes from a page of this program, or from no page at all. A link from elsewhere may open a page, and ask nothing else.</summary>
    private static bool FromHere(HttpRequest request)
    {
        var origin = request.Headers.Origin.ToString();
        if (origin.Length > 0 && origin != $"{request.Scheme}://{request.Host}")
            return false;
        return request.Headers["Sec-Fetch-Site"].ToString() is "" or "same-origin" or "none" || OpensPage(request);
    }

    private static bool OpensPage(HttpRequest request) =>
        HttpMethods.IsGet(request.Method)
        && request.Headers["Sec-Fetch-Mode"] == "navigate"
        && request.Headers["Sec-Fetch-Dest"] == "document"
        && !request.Path.StartsWithSegments("/api");
}
