namespace Emendum.Web.Jobs;

/// <summary>Bodies of requests that are files.</summary>
public static class FileBody
{
    /// <summary>Most bytes of a file that are read at all before the connection is dropped.</summary>
    public const int MostDrained = 256_000_000;

    /// <summary>The body. One that is too large is read to its end and thrown away: answering earlier would break the connection before the answer is seen.</summary>
    /// <exception cref="BadHttpRequestException">It is larger than <paramref name="most"/>.</exception>
    public static async Task<byte[]> Read(HttpRequest request, int most)
    {
        using var content = new MemoryStream();
        var (chunk, length) = (new byte[64 * 1024], 0L);
        while (await request.Body.ReadAsync(chunk) is var read and > 0)
            if ((length += read) <= most)
                content.Write(chunk, 0, read);
        if (length > most)
            throw new BadHttpRequestException(
                $"That is too large: at most {most / 1_000_000} MB.",
                StatusCodes.Status413PayloadTooLarge
            );
        return content.ToArray();
    }
}
