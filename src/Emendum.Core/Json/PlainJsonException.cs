using System.Text.Json;

namespace Emendum.Core.Json;

/// <summary>A value of ours that cannot be read, with a sentence fit to be shown; the framework's own messages are not.</summary>
public sealed class PlainJsonException(string message) : JsonException(message);
