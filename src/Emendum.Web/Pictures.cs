using Emendum.Core.Proposals;
using Emendum.Documents;
using Emendum.Storage;

namespace Emendum.Web;

/// <summary>Pictures as they leave the house: on paper, in mails, on the customer's page. Each is made once and kept.</summary>
public sealed class Pictures(FileStore files, TimeProvider time)
{
    /// <summary>One at a time: a large one takes 240 MB while it is made.</summary>
    private readonly SemaphoreSlim one = new(1);

    /// <summary>A picture as it leaves the house; null where it is not here.</summary>
    /// <param name="hash">The picture as it was brought in.</param>
    public async Task<StoredFile?> Of(string hash)
    {
        if (files.Prepared(hash) is { } there)
            return there;
        if (files.Find(hash) is not { } file || !FileEndpoints.IsPictureToShow(file))
            return null;
        await one.WaitAsync();
        try
        {
            if (files.Prepared(hash) is { } meanwhile)
                return meanwhile;
            if (PictureOut.Of(files.Bytes(file)) is not { } made)
                return null;
            using var content = new MemoryStream(made);
            var prepared = await files.Take(content, FileEndpoints.Kind, time.GetUtcNow().UtcDateTime, default);
            files.KeepPrepared(hash, prepared.Hash);
            return prepared;
        }
        finally
        {
            one.Release();
        }
    }

    /// <summary>Something attached as it leaves the house, with the name it then has; null where it is not here. A PDF goes as it is.</summary>
    public async Task<(StoredFile File, string Name)?> Leaving(AttachedFile attached)
    {
        if (files.Find(attached.File) is not { } file)
            return null;
        if (!FileKind.IsPicture(file.Type))
            return (file, attached.Name);
        return await Of(attached.File) is { } made
            ? (made, Path.ChangeExtension(attached.Name, made.Type == "image/png" ? ".png" : ".jpg"))
            : null;
    }

    /// <summary>The bytes of a picture as it leaves the house; null where it is not here.</summary>
    public async Task<byte[]?> Bytes(string hash) => await Of(hash) is { } file ? files.Bytes(file) : null;

    /// <summary>The pictures of a document that is read, by their hashes; those that are not here are left out.</summary>
    public async Task<IReadOnlyDictionary<string, byte[]>> Of(Document document)
    {
        var all = new Dictionary<string, byte[]>();
        foreach (var picture in document.Elements.OfType<PictureRow>().SelectMany(row => row.Pictures))
            if (!all.ContainsKey(picture.File) && await Bytes(picture.File) is { } bytes)
                all.Add(picture.File, bytes);
        return all;
    }
}
