using System.Buffers;
using Emendum.Core.Jobs;
using Microsoft.AspNetCore.Http.Features;

namespace Emendum.Web;

/// <summary>Most bytes that an operation's body may have; where an operation says nothing, <see cref="Bodies.Most"/>.</summary>
/// <param name="Bytes">The limit.</param>
public sealed record BodyLimit(int Bytes)
{
    /// <summary>The limit in words.</summary>
    public string Words => Bytes < 2_000_000 ? $"{Bytes / 1000:#,0} kB" : $"{Bytes / 1_000_000} MB";
}

/// <summary>
/// Bounds what any request may send. A body that says it is too large is refused unread; one that turns out to be is cut off at its limit. What is still on its way is then
/// let run out unread, for so long and so much, because answering and hanging up at once would break the connection before the answer is seen.
/// </summary>
public sealed class Bodies(RequestDelegate next)
{
    /// <summary>Most bytes of a body where the operation sets no limit of its own.</summary>
    public const int Most = Core.Jobs.JobFile.MostBytes;

    /// <summary>Most that is let run out after a refusal, and how long that may take.</summary>
    private const long MostDiscarded = 1_000_000_000;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    /// <summary>Runs the request within its limit.</summary>
    public async Task InvokeAsync(HttpContext context)
    {
        var sent = context.Request.Body;
        var limit = context.GetEndpoint()?.Metadata.GetMetadata<BodyLimit>() ?? new(Most);
        // The server's own limit is lifted: it would hang up.
        if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } own)
            own.MaxRequestBodySize = null;
        var bounded = new Bounded(sent, limit);
        context.Request.Body = bounded;
        if (context.Request.ContentLength > limit.Bytes)
            bounded.TooLarge = true;
        try
        {
            if (bounded.TooLarge)
                throw Bounded.Refused(limit);
            await next(context);
        }
        catch (Exception) when (bounded.TooLarge && !context.Response.HasStarted)
        {
            context.Response.Headers.Connection = "close";
            await Refusals.Write(
                context,
                StatusCodes.Status413PayloadTooLarge,
                Bounded.Refused(limit).Message,
                ("field", "file")
            );
            await context.Response.CompleteAsync();
            await Discard(sent, context.RequestAborted);
        }
        finally
        {
            context.Request.Body = sent;
        }
    }

    private static async Task Discard(Stream body, CancellationToken aborted)
    {
        using var patience = CancellationTokenSource.CreateLinkedTokenSource(aborted);
        patience.CancelAfter(Patience);
        var buffer = ArrayPool<byte>.Shared.Rent(64 * 1024);
        try
        {
            for (long all = 0; all < MostDiscarded; )
            {
                var read = await body.ReadAsync(buffer, patience.Token);
                if (read == 0)
                    break;
                all += read;
            }
        }
        catch (Exception gone) when (gone is OperationCanceledException or IOException or BadHttpRequestException)
        {
            // Whoever sent it has gone, or goes on for too long.
        }
        finally
        {
            ArrayPool<byte>.Shared.Return(buffer);
        }
    }

    /// <summary>A body that gives no more than its limit.</summary>
    private sealed class Bounded(Stream inner, BodyLimit limit) : Stream
    {
        private long read;

        /// <summary>Whether more was sent than may be.</summary>
        public bool TooLarge { get; set; }

        public static BadHttpRequestException Refused(BodyLimit limit) =>
            new($"That is too large: at most {limit.Words}.", StatusCodes.Status413PayloadTooLarge);

        public override async ValueTask<int> ReadAsync(
            Memory<byte> buffer,
            CancellationToken cancellationToken = default
        )
        {
            if (TooLarge)
                throw Refused(limit);
            // One byte more than the limit tells that there is more.
            var room = (int)Math.Min(buffer.Length, limit.Bytes + 1L - read);
            var got = await inner.ReadAsync(buffer[..room], cancellationToken);
            read += got;
            TooLarge = read > limit.Bytes;
            return TooLarge ? throw Refused(limit) : got;
        }

        public override Task<int> ReadAsync(
            byte[] buffer,
            int offset,
            int count,
            CancellationToken cancellationToken
        ) => ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

        public override int Read(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position
        {
            get => throw new NotSupportedException();
            set => throw new NotSupportedException();
        }

        public override void Flush() { }

        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

        public override void SetLength(long value) => throw new NotSupportedException();

        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
    }

    /// <summary>The whole body as bytes, collected in pieces that are used again, so that one that is refused costs nothing.</summary>
    public static async Task<byte[]> Read(HttpRequest request)
    {
        var (pieces, length) = (new List<byte[]>(), 0);
        try
        {
            while (true)
            {
                var at = length % Piece;
                if (at == 0)
                    pieces.Add(ArrayPool<byte>.Shared.Rent(Piece));
                var read = await request.Body.ReadAsync(pieces[^1].AsMemory(at, Piece - at));
                if (read == 0)
                    break;
                length += read;
            }
            var whole = new byte[length];
            for (var i = 0; i * Piece < length; i++)
                pieces[i].AsSpan(0, Math.Min(Piece, length - i * Piece)).CopyTo(whole.AsSpan(i * Piece));
            return whole;
        }
        finally
        {
            foreach (var piece in pieces)
                ArrayPool<byte>.Shared.Return(piece);
        }
    }

    private const int Piece = 1 << 20;
}
