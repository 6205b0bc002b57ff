using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;

namespace Emendum.Web;

/// <summary>The client's own files. What the build has compressed once (<c>.br</c> beside it) is sent so to whoever takes it; names with a hash in them are kept by browsers for good.</summary>
public static class ClientFiles
{
    private const string Compressed = ".br";
    private const string Hashed = "/assets/";

    /// <summary>Serves a folder of them; what is no file and no operation is the page.</summary>
    public static void Serve(WebApplication app, string folder)
    {
        var files = Send(app, folder, "");
        app.MapFallbackToFile("index.html", new StaticFileOptions { FileProvider = files });
    }

    /// <summary>Serves the files of a folder and nothing else.</summary>
    /// <param name="app">The program.</param>
    /// <param name="folder">The folder.</param>
    /// <param name="under">What their paths begin with: <c>/outside</c>; empty for nothing.</param>
    public static PhysicalFileProvider Send(WebApplication app, string folder, string under)
    {
        var files = new PhysicalFileProvider(Path.GetFullPath(folder));
        var types = new FileExtensionContentTypeProvider { Mappings = { [Compressed] = "application/octet-stream" } };
        app.Use(
            (context, next) =>
            {
                var path = context.Request.Path.Value ?? "";
                if (
                    IsHashed(path)
                    && path.StartsWith(under, StringComparison.Ordinal)
                    && context.Request.Headers.AcceptEncoding.ToString().Contains("br", StringComparison.Ordinal)
                    && files.GetFileInfo(path[under.Length..] + Compressed).Exists
                )
                    context.Request.Path = path + Compressed;
                return next(context);
            }
        );
        app.UseDefaultFiles(new DefaultFilesOptions { FileProvider = files, RequestPath = under });
        app.UseStaticFiles(
            new StaticFileOptions
            {
                FileProvider = files,
                ContentTypeProvider = types,
                RequestPath = under,
                OnPrepareResponse = sent => Prepare(sent, types),
            }
        );
        return files;
    }

    private static bool IsHashed(string path) => path.Contains(Hashed, StringComparison.Ordinal);

    private static void Prepare(StaticFileResponseContext sent, FileExtensionContentTypeProvider types)
    {
        var (headers, path) = (sent.Context.Response.Headers, sent.Context.Request.Path.Value ?? "");
        if (IsHashed(path))
        {
            headers.CacheControl = "public, max-age=31536000, immutable";
            headers.Vary = "Accept-Encoding";
        }
        if (!path.EndsWith(Compressed, StringComparison.Ordinal))
            return;
        headers.ContentEncoding = "br";
        if (types.TryGetContentType(path[..^Compressed.Length], out var type))
            headers.ContentType = type;
    }
}
