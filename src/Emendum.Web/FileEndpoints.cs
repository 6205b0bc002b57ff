using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web;

/// <summary>Files in and out (architecture decision 31). What a file is, its content says; only pictures are shown in place, everything else is handed out to be saved.</summary>
public static class FileEndpoints
{
    /// <summary>Most bytes of a picture of the Book.</summary>
    private const int MostPictureBytes = 20_000_000;

    /// <summary>Most points of a picture, so that whoever shows it is not overrun by a small file.</summary>
    private const long MostPoints = 60_000_000;

    /// <summary>Maps them.</summary>
    public static void MapFiles(this IEndpointRouteBuilder app)
    {
        app.MapPost(
                "/api/files",
                (HttpRequest request, FileStore files, TimeProvider time) =>
                    files.Take(request.Body, Kind, time.GetUtcNow().UtcDateTime, request.HttpContext.RequestAborted)
            )
            .WithMetadata(new BodyLimit(FileStore.MostBytes))
            .Accepts<byte[]>("application/octet-stream");
        app.MapGet("/api/files/{hash}", Send).Produces<byte[]>();
    }

    /// <summary>What a file on disk is.</summary>
    public static (string Type, int? Width, int? Height) Kind(string path)
    {
        var kind = FileKind.Of(path);
        return (kind.Type, kind.Width, kind.Height);
    }

    private static IResult Send(string hash, FileStore files, HttpResponse response)
    {
        var file = files.Find(hash) ?? throw new NotThereException("That file is not here.");
        var headers = response.Headers;
        headers.XContentTypeOptions = "nosniff";
        headers.ContentSecurityPolicy = "default-src 'none'; sandbox";
        // A name that is a hash never stands for anything else.
        headers.CacheControl = "private, max-age=31536000, immutable";
        if (!FileKind.IsPicture(file.Type))
            headers.ContentDisposition = "attachment";
        return Results.Stream(files.Read(file), file.Type, enableRangeProcessing: true);
    }

    /// <summary>Says that an entry shows a picture, before the entry is kept; it must be here whole, and be one.</summary>
    /// <exception cref="RefusedException">It is not.</exception>
    public static void NamePicture(this FileStore files, BookEntry entry)
    {
        if (entry is Material { Picture: { Length: > 0 } hash })
            files.NamePicture(hash, "picture");
    }

    /// <summary>Says that a photo or scan of a paper is kept; it must be here whole, and be a picture or a PDF.</summary>
    /// <exception cref="RefusedException">It is not.</exception>
    public static void NamePaper(this FileStore files, string hash, string field)
    {
        if (files.Find(hash) is { Type: "application/pdf" })
            files.Name(hash);
        else
            files.NamePicture(hash, field);
    }

    /// <summary>Says that a picture is shown somewhere; it must be here whole, and be one.</summary>
    /// <exception cref="RefusedException">It is not.</exception>
    public static void NamePicture(this FileStore files, string hash, string field)
    {
        var picture =
            files.Find(hash) ?? throw RefusedException.Of(field, "That picture is not here. Choose it once more.");
        if (!FileKind.IsPicture(picture.Type))
            throw RefusedException.Of(field, "That is not a PNG, JPEG or WebP picture.");
        if (picture.Bytes > MostPictureBytes || (long)picture.Width! * picture.Height! > MostPoints)
            throw RefusedException.Of(
                field,
                $"That picture is too large: at most {MostPictureBytes / 1_000_000} MB and {MostPoints / 1_000_000} million points."
            );
        files.Name(hash);
    }
}
