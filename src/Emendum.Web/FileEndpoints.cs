using Emendum.Core;
using Emendum.Core.Book;
using Emendum.Core.Jobs;
using Emendum.Documents;
using Emendum.Storage;
using Emendum.Web.Jobs;

namespace Emendum.Web;

/// <summary>Files in and out (architecture decision 31). What a file is, its content says; only pictures are shown in place, everything else is handed out to be saved.</summary>
public static class FileEndpoints
{
    /// <summary>Most bytes of a picture of the Book.</summary>
    private const int MostPictureBytes = 20_000_000;

    /// <summary>Most bytes of the PDFs that go with a proposal: mail programs take little more.</summary>
    private const int MostAttachedBytes = 15_000_000;

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
        app.MapGet("/api/files/{hash}/picture", Picture).Produces<byte[]>();
    }

    /// <summary>What a file on disk is.</summary>
    public static (string Type, int? Width, int? Height) Kind(string path)
    {
        var kind = FileKind.Of(path);
        return (kind.Type, kind.Width, kind.Height);
    }

    private static IResult Send(string hash, FileStore files, HttpResponse response) =>
        Shown(files.Find(hash) ?? throw new NotThereException("That file is not here."), files, response);

    /// <summary>A picture as it leaves the house: small enough for a page of many.</summary>
    private static async Task<IResult> Picture(
        string hash,
        FileStore files,
        Pictures pictures,
        HttpResponse response
    ) => Shown(await pictures.Of(hash) ?? throw new NotThereException("That picture is not here."), files, response);

    private static IResult Shown(StoredFile file, FileStore files, HttpResponse response)
    {
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

    /// <summary>Says that files are in the proposal of a job or of a pattern; each must be here whole, and be what it is said to be.</summary>
    /// <exception cref="RefusedException">One is not.</exception>
    public static void NameInProposal(this FileStore files, IReadOnlyCollection<BlockFile> named)
    {
        const string field = "files";
        var attached = 0L;
        foreach (var of in named)
        {
            var file =
                files.Find(of.File) ?? throw RefusedException.Of(field, "That file is not here. Choose it once more.");
            if (FileKind.IsPicture(file.Type))
            {
                files.NamePicture(file, field);
                if (of.Width != file.Width || of.Height != file.Height)
                    throw RefusedException.Of(field, $"That picture is {file.Width} × {file.Height} points.");
            }
            else if (file.Type != "application/pdf" || of.Width != 0)
                throw RefusedException.Of(field, "That is neither a PDF nor a PNG, JPEG or WebP picture.");
            else if ((attached += file.Bytes) > MostAttachedBytes)
                throw RefusedException.Of(
                    field,
                    $"PDFs that are attached are at most {MostAttachedBytes / 1_000_000} MB together."
                );
            else
                files.Name(of.File);
        }
    }

    /// <summary>Whether a file is a picture that is small enough to be shown.</summary>
    internal static bool IsPictureToShow(StoredFile file) =>
        FileKind.IsPicture(file.Type)
        && file.Bytes <= MostPictureBytes
        && (long)file.Width! * file.Height! <= MostPoints;

    /// <summary>Says that a picture is shown somewhere; it must be here whole, and be one.</summary>
    /// <exception cref="RefusedException">It is not.</exception>
    public static void NamePicture(this FileStore files, string hash, string field) =>
        files.NamePicture(
            files.Find(hash) ?? throw RefusedException.Of(field, "That picture is not here. Choose it once more."),
            field
        );

    private static void NamePicture(this FileStore files, StoredFile picture, string field)
    {
        if (!FileKind.IsPicture(picture.Type))
            throw RefusedException.Of(field, "That is not a PNG, JPEG or WebP picture.");
        if (!IsPictureToShow(picture))
            throw RefusedException.Of(
                field,
                $"That picture is too large: at most {MostPictureBytes / 1_000_000} MB and {MostPoints / 1_000_000} million points."
            );
        files.Name(picture.Hash);
    }
}
