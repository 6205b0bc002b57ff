using System.Globalization;
using Emendum.Core;

namespace Emendum.Storage;

/// <summary>The firm's data folder, held by one program at a time: two that wrote the same files would each undo the other's work.</summary>
public sealed class DataFolder : IDisposable
{
    private readonly FileStream held;
    private readonly string process;

    private DataFolder(string path, FileStream held) =>
        (Path, this.held, process) = (path, held, System.IO.Path.Combine(path, "emendum.pid"));

    /// <summary>The folder.</summary>
    public string Path { get; }

    /// <summary>Where data is kept unless somebody says otherwise: a folder of the user's own, wherever the program is started.</summary>
    public static string Usual =>
        System.IO.Path.Combine(
            Environment.GetFolderPath(
                Environment.SpecialFolder.LocalApplicationData,
                Environment.SpecialFolderOption.DoNotVerify
            ),
            "emendum"
        );

    /// <summary>Takes hold of a folder, making it where it is missing, readable by its owner only.</summary>
    /// <exception cref="RefusedException">It cannot be written, or another program holds it; the message names that.</exception>
    public static DataFolder Hold(string path)
    {
        try
        {
            if (!Directory.Exists(path) && !OperatingSystem.IsWindows())
                Directory.CreateDirectory(
                    path,
                    UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute
                );
            Directory.CreateDirectory(path);
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            throw RefusedException.Of("data", $"The data folder {path} cannot be used: it cannot be written.");
        }
        FileStream? held = null;
        try
        {
            held = new(
                System.IO.Path.Combine(path, "emendum.lock"),
                FileMode.OpenOrCreate,
                FileAccess.ReadWrite,
                FileShare.None
            );
            var folder = new DataFolder(path, held);
            folder.Serves("");
            return folder;
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            held?.Dispose();
            throw RefusedException.Of(
                "data",
                held is null && IsHeld(wrong) && Holder(path) is { } holder
                    ? $"The data folder {path} is in use by another Emendum, {holder}. Stop that one first, or choose another folder with --data."
                    : $"The data folder {path} cannot be used: it cannot be written."
            );
        }
    }

    /// <summary>Whether a file could not be opened because another program holds it, and for no other reason: what stands in a folder that is read only was left by a program that is gone.</summary>
    private static bool IsHeld(Exception wrong) =>
        // EWOULDBLOCK on Linux and macOS; a sharing violation on Windows.
        wrong is IOException { HResult: 11 or 35 or unchecked((int)0x80070020) };

    /// <summary>Who holds a folder, in words; null where nobody has said.</summary>
    private static string? Holder(string path)
    {
        try
        {
            var lines = File.ReadAllLines(System.IO.Path.Combine(path, "emendum.pid"));
            return lines is [var process, var address, ..] && address.Length > 0
                ? $"process {process} at {address}"
                : $"process {lines.FirstOrDefault("unknown")}";
        }
        catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
        {
            return null;
        }
    }

    /// <summary>Says at which address this program can be reached.</summary>
    public void Serves(string address)
    {
        File.WriteAllText(
            process,
            string.Create(CultureInfo.InvariantCulture, $"{Environment.ProcessId}\n{address}\n")
        );
        Database.OwnerOnly(process);
    }

    /// <summary>Lets go of the folder.</summary>
    public void Dispose()
    {
        File.Delete(process);
        held.Dispose();
    }
}
