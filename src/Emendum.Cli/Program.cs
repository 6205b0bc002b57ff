using System.Text.Json;
using System.Text.Json.Nodes;
using Emendum.Core;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Json;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Reports;
using Emendum.Storage;

const string usage = """
    emendum reckon FILE                                     the estimate of a job file, as JSON
    emendum price FILE                                      how the price of a job file is built, and what each piece is worth, as JSON
    emendum measure "TAPE LINE" [--units ft|m] [--deduct net|gross|nrm2|vob|is1200|"over 10 ft2; 5 ft2; 3 ft"]
                                                            the measures of a place, as JSON
    emendum backup FILE [--data DIR]                        copies the database to a new file, also while it is in use, and proves the copy
    emendum verify FILE                                     reads such a copy from one end to the other
    emendum restore FILE [--data DIR]                       puts it in the place of the database; the server must be stopped, what stood there is kept
    """;
try
{
    switch (args)
    {
        case ["reckon", var file]:
            Print(Reported.Of(JobFile.Read(ReadFile(file))));
            return 0;
        case ["price", var file]:
            Print(Priced.Of(JobFile.Read(ReadFile(file))));
            return 0;
        case ["measure", var line, .. var options] when options.Length % 2 == 0:
            Print(Measured(line, options));
            return 0;
        case ["backup", var file]:
            Console.Out.WriteLine(BackUp(file, DataFolder.Usual));
            return 0;
        case ["backup", var file, "--data", var data]:
            Console.Out.WriteLine(BackUp(file, data));
            return 0;
        case ["verify", var file]:
            Console.Out.WriteLine($"{file} is whole: {Holds(Backup.VerifyWithFiles(file))}.");
            return 0;
        case ["restore", var file]:
            Console.Out.WriteLine(Restore(file, DataFolder.Usual));
            return 0;
        case ["restore", var file, "--data", var data]:
            Console.Out.WriteLine(Restore(file, data));
            return 0;
        default:
            Console.Error.WriteLine(usage);
            return 2;
    }
}
catch (RefusedException refused)
{
    var refusal = refused.Refusal;
    Console.Error.WriteLine(
        refusal.Message
            + (refusal.Position is { } at ? $" (at character {at + 1})" : "")
            + (refusal.Suggestion is { } like ? $" For instance: {like}" : "")
    );
    return 2;
}

static void Print(JsonNode node) => Console.Out.WriteLine(node.ToJsonString(CoreJson.Indented));

static string Holds(BackedUp made) =>
    $"{Counted.Of(made.Jobs, "job")} with {Counted.Of((int)made.Edits, "edit")}, {Counted.Of(made.Entries, "entry", "entries")} of the Book"
    + (made.Files > 0 ? $", {made.Files} files in emendum-files.db beside it" : "")
    + (made.Lacking > 0 ? $"; {made.Lacking} pictures of the Book are missing" : "");

static string BackUp(string file, string data)
{
    // Read only: a backup brings no tables up to date, and begins no database.
    var made = Backup.Make(
        Database.OpenCopy(Path.Combine(data, Database.FileName)),
        FileStore.OpenCopy(data),
        file,
        DateTime.UtcNow
    );
    return $"{file} is made and read again: {Holds(made)}.";
}

static string Restore(string file, string data)
{
    using var folder = DataFolder.Hold(data);
    var kept = Backup.Restore(folder, file, DateTime.UtcNow);
    return kept is null
        ? $"{file} is restored to {data}."
        : $"{file} is restored to {data}. What stood there is kept as {kept}.";
}

static byte[] ReadFile(string path)
{
    try
    {
        var length = new FileInfo(path).Length;
        if (length > JobFile.MostBytes)
            throw RefusedException.Of(
                "file",
                $"A job file is at most {JobFile.MostBytes / 1_000_000} MB; this one is {length / 1_000_000} MB."
            );
        return File.ReadAllBytes(path);
    }
    catch (Exception wrong) when (wrong is IOException or UnauthorizedAccessException)
    {
        throw RefusedException.Of("file", $"{path} cannot be read.");
    }
}

static JsonObject Measured(string line, string[] options)
{
    var (system, rule) = (UnitSystem.Feet, DeductionRule.All[0]);
    for (var i = 0; i < options.Length; i += 2)
    {
        var value = options[i + 1];
        switch (options[i])
        {
            case "--units":
                system = value switch
                {
                    "ft" => UnitSystem.Feet,
                    "m" => UnitSystem.Metres,
                    _ => throw RefusedException.Of("units", "--units takes ft or m."),
                };
                break;
            case "--deduct":
                rule =
                    DeductionRule.Find(value)
                    ?? throw RefusedException.Of(
                        "deduct",
                        $"--deduct takes {string.Join(", ", DeductionRule.All.Select(r => r.Name))} or own limits like \"over 10 ft2; 5 ft2; 3 ft\"."
                    );
                break;
            default:
                throw RefusedException.Of("options", $"{options[i]} is not an option.");
        }
    }
    var reading = TapeLine.ReadOrThrow(line, system);
    var measures = PlaceMeasures.Of(reading.ToPlace(Guid.Empty, "", "", line), [], system, rule, Trace.Silent);
    JsonObject Say(decimal value, Kind kind) =>
        new() { ["value"] = Rounding.Text(value), ["unit"] = kind == Kind.Count ? "" : system.For(kind).Symbol };
    var node = new JsonObject();
    foreach (var measure in Measures.All.Where(measures.Has))
        node[measure.Name()] = Say(measures[measure].V, measure.Kind());
    foreach (var extra in measures.Extras)
        node[extra.Leaf] = Say(extra.Value.V, extra.Kind);
    return new()
    {
        ["name"] = reading.Name,
        ["kind"] = reading.Shape.Kind,
        ["count"] = reading.Count,
        ["measures"] = node,
    };
}
