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
        var files = new PhysicalFileProvider(Path.GetFullPath(folder));
        var types = new FileExtensionContentTypeProvider { Mappings = { [Compressed] = "application/octet-stream" } };
        var options = new StaticFileOptions
        {
            FileProvider = files,
            ContentTypeProvider = types,
            OnPrepareResponse = sent => Prepare(sent, types),
        };
        app.Use(
            (context, next) =>
            {
                var path = context.Request.Path.Value ?? "";
                if (
                    path.StartsWith(Hashed, StringComparison.Ordinal)
                    && context.Request.Headers.AcceptEncoding.ToString().Contains("br", StringComparison.Ordinal)
                    && files.GetFileInfo(path + Compressed).Exists
                )
                    context.Request.Path = path + Compressed;
                return next(context);
            }
        );
        app.UseDefaultFiles(new DefaultFilesOptions { FileProvider = files });
        app.UseStaticFiles(options);
        app.MapFallbackToFile("index.html", new StaticFileOptions { FileProvider = files });
    }

    private static void Prepare(StaticFileResponseContext sent, FileExtensionContentTypeProvider types)
    {
        var (headers, path) = (sent.Context.Response.Headers, sent.Context.Request.Path.Value ?? "");
        if (path.StartsWith(Hashed, StringComparison.Ordinal))
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
