// Prints the table that docs/performance.md holds. Usage: Emendum.Bench SERVER.dll [opened | load | fuzz | growth | library | price | proposal | customers | deliver]
using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Emendum.Bench;
using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Reckoning;
using Emendum.Core.Reports;
using Emendum.Documents;
using Emendum.Documents.Workbooks;
using Emendum.Storage.Demo;
using Emendum.Web.Tests;
using Trace = Emendum.Core.Figures.Trace;

CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
Console.WriteLine(
    $"Machine: {Environment.ProcessorCount} cores, {Processor()}, .NET {Environment.Version}, {GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / (1L << 30)} GiB"
);
Console.WriteLine();
Console.WriteLine("| what | measured | aim |");
Console.WriteLine("| --- | --- | --- |");

// Only what it takes to open jobs.
if (args is [var only, "opened"])
{
    await Opened(only);
    return 0;
}

// Only what is sent at random.
if (args is [var sent, "fuzz"])
{
    await Sent(sent);
    return 0;
}

// Only how time grows.
if (args is [_, "growth"])
{
    Growth();
    return 0;
}

// Only the demo's library, beside a headless office suite where one is installed.
if (args is [var office, "library"])
{
    await Library(office);
    return 0;
}

// Only customers who choose.
if (args is [var chosen, "customers"])
{
    await Customers(chosen);
    return 0;
}

// Only what comes after the yes.
if (args is [var delivering, "deliver"])
{
    await Delivered(delivering);
    return 0;
}

// Only proposals.
if (args is [_, "proposal"])
{
    Proposed();
    return 0;
}

// Only the price, what pieces are worth, and cost sheets recalculated by an office suite.
if (args is [_, "price"])
{
    Priced();
    await CostSheets();
    return 0;
}

// Only many editors at once.
if (args is [var server, "load"])
{
    await Editors(server);
    return 0;
}
Process.GetCurrentProcess().ProcessorAffinity = 1;

var five = BigJob.Of(500, 5);
var (fiveTime, fiveBytes) = Reckoned(five);
Row("full estimate, 500 places, 5,000 components, one core", $"{fiveTime:0.00} ms", "under 10 ms");
Row("allocated by it", $"{fiveBytes / 1e6:0.0} MB", "under 20 MB");
Row(
    "full estimate, 500 places, 30,000 components, one core",
    $"{Reckoned(BigJob.Of(500, 30)).Time:0.00} ms",
    "under 80 ms"
);
Row(
    "the same with five-part assemblies, 5,000 components",
    $"{Reckoned(BigJob.OfAssemblies(500, 2)).Time:0.00} ms",
    "under 10 ms"
);
Row(
    "the same with five-part assemblies, 30,000 components",
    $"{Reckoned(BigJob.OfAssemblies(500, 12)).Time:0.00} ms",
    "under 80 ms"
);
var scale = new[] { (125, 1250), (500, 5000), (2000, 20_000) }
    .Select(s => Reckoned(BigJob.Of(s.Item1, 5)).Time * 1000 / s.Item2)
    .ToArray();
Row(
    "time per component at 1,250, 5,000 and 20,000",
    string.Join(", ", scale.Select(t => $"{t:0.00} µs")) + $" (spread {(scale.Max() / scale.Min() - 1) * 100:0} %)",
    "within 30 % of each other"
);

Growth();
var estimate = Estimate.Of(five, Trace.Silent);
var spreadsheet = new Spreadsheet(estimate);
var inSheet = spreadsheet.Recalculate();
var sheetTime = Median(() => spreadsheet.Recalculate(), 5);
Row(
    "the same estimate recalculated by a general-purpose spreadsheet library (NPOI 2.4.1)",
    $"{sheetTime:0.0} ms, {sheetTime / fiveTime:0} times as long",
    "100 times"
);
Row("price before tax: ours, the spreadsheet's", $"{estimate.Price.BeforeTax.V}, {inSheet}", "equal to the cent");

foreach (
    var (what, need, packs) in new[]
    {
        ("packs of 2 to 50 lb in kg at one price per kg, for 1,000 kg", 1000m, AwkwardPacks.Pounds),
        ("12 awkward packs for a need of 100,000", 100_000m, AwkwardPacks.Twelve),
    }
)
{
    var choice = CheapestPacks.Cover(need, packs);
    var time = Median(() => CheapestPacks.Cover(need, packs), 15);
    var said = choice.Above == 0 ? "exact" : $"at most {choice.Above:0.0000} above the least";
    Row(what, $"{time:0.0} ms, {choice.Steps:N0} steps, {said}", "20 ms");
}

Priced();
Proposed();
await Customers(args[0]);
await CostSheets();
var edits = await Edits(five, args[0]);
Row(
    "200 single-cell edits over HTTP on that job, commit included",
    $"median {edits[99]:0.0} ms, p95 {edits[189]:0.0} ms",
    "median under 15 ms, p95 under 50 ms"
);
await Library(args[0]);
await Opened(args[0]);
await Editors(args[0]);
await Sent(args[0]);
var (preview, taken, searches) = await Book(args[0]);
Row(
    "10,000 rows brought into the Book over HTTP: to the preview; taken",
    $"{preview:0} ms; {taken:0} ms",
    "no aim set"
);
Row(
    "200 searches in those 10,000 entries over HTTP",
    $"median {searches[99]:0.0} ms, p95 {searches[189]:0.0} ms",
    "under 50 ms"
);
return estimate.Price.BeforeTax.V == inSheet ? 0 : 1;

static async Task Opened(string server)
{
    Row(
        "a job of 5,000 lines with 5,000 edits in its log opened from disk and reckoned",
        $"{OpenedJobs.WithEdits(BigJob.Of(500, 10), 5000):0} ms",
        "under 300 ms"
    );
    Row(
        "300 jobs of 236 lines brought in, opened and asked 'why?' one after another: most memory the server held",
        $"{await WithServer(server, (http, process) => OpenedJobs.Memory(http, process, 300)):0} MB",
        "under 500 MB"
    );
}

static async Task Library(string server)
{
    var job = DemoJobs.Fixed().Single(j => j.Info.Name.Contains("Library", StringComparison.Ordinal));
    Process.GetCurrentProcess().ProcessorAffinity = 1;
    var cold = Stopwatch.StartNew();
    Estimate.Of(job, Trace.Silent);
    var first = cold.Elapsed.TotalMilliseconds;
    var early = Median(() => Estimate.Of(job, Trace.Silent), 9);
    // A small job takes little of each second that is waited: it is compiled for speed only after some thousand times.
    var time = Warm(() => Estimate.Of(job, Trace.Silent), 6000);
    var all = Warm(() => Reported.All(job, Trace.Silent), 6000);
    Process.GetCurrentProcess().ProcessorAffinity = (1 << Environment.ProcessorCount) - 1;
    Row(
        $"the demo's library, {job.Places.Length} places, {job.Cells.Count} cells: full estimate, one core",
        $"{time:0.00} ms (the first of a process {first:0} ms, the next {early:0.0} ms: not compiled for speed yet)",
        "under 1 ms"
    );
    Row("every figure that any screen or document shows of it, silently", $"{all:0.00} ms", "no aim set");
    var (figures, suite, differ) = await OfficeSuite.Recalculated(
        await WithServer(
            server,
            (http, _) => http.GetByteArrayAsync($"/api/jobs/{StarterBook.Id(999)}/workings.xlsx"),
            demo: true
        )
    );
    if (suite > 0)
        Row(
            $"its workings as a workbook, {figures} figures as formulas, recalculated by a headless office suite; figures that differ",
            $"{suite:0.0} ms, {suite / time:0} times the full estimate, {suite / all:0} times every figure; {differ}",
            "40 times the full estimate; 0"
        );
}

// A set of 700 combinations that another follows, with rules, in the demo's library: each change done and priced by the core.
static void Chosen()
{
    var job = DemoJobs.Fixed().Single(j => j.Info.Name.Contains("Library", StringComparison.Ordinal));
    job = job.Choices.Aggregate(job, (so, c) => Commands.Apply(so, new RemoveChoice(c.Id), _ => null).Job);
    var work = job.Work.First(w => job.Book[w.Entry] is ProductionRate { Product: not null });
    Guid[] places = [.. job.Places.Select(p => p.Id).Where(p => job.Cells.ContainsKey(new(work.Id, p)))];
    Choice Made(string name, Guid[] at, Guid? follows, Func<int, ChoiceOption> option)
    {
        ChoiceOption[] options = [.. Enumerable.Range(0, 700).Select(option)];
        var made = new Choice(Guid.CreateVersion7(), "", name, work.Id, [.. options], options[0].Id, options[0].Id)
        {
            Places = [.. at],
            Follows = follows,
        };
        job = Commands.Apply(job, new AddChoice(made), _ => null).Job;
        return made;
    }
    ChoiceOption Variation(int i) => new(Guid.CreateVersion7(), $"Variation {i}") { Price = 10 + i / 100m };
    var first = Made("First", places[..1], null, Variation);
    Made("Second", places[1..2], first.Id, Variation);
    Made(
        "Third",
        places[2..3],
        null,
        i => Variation(i) with { RulesOut = i == 0 ? [] : [.. first.Options.Take(i % 50).Select(o => o.Id)] }
    );
    var estimate = Estimate.Of(job, Trace.Silent);
    var times = new List<double>();
    for (var i = 0; i < 700; i++)
    {
        var watch = Stopwatch.StartNew();
        var taken = new Chosen(first.Id, job.Choices.Single(c => c.Id == first.Id).Taken, first.Options[i].Id);
        job = Commands.Apply(job, new TakeChoice([taken], null), _ => null).Job;
        estimate = estimate.If(job);
        times.Add(watch.Elapsed.TotalMilliseconds);
    }
    times.Sort();
    Row(
        "a choice of 700 combinations changed, with one that follows and one with rules, done and priced",
        $"half under {times[350]:0.0} ms, p95 {times[665]:0.0} ms",
        "p95 under 50 ms"
    );
}

static void Proposed()
{
    var job = LibraryJob.Build(StarterBook.Id(999), StarterBook.Id(900), "2026-11-23");
    job = job with
    {
        Proposal = job.Proposal with { Detail = Detail.Line, UnitPrices = true, ScopeBy = Detail.Line, Hours = true },
    };
    var estimate = Estimate.Of(job, Trace.Silent);
    var document = Proposal.Of(estimate, Party.None, Brand.Starting, Trace.Silent);
    var pdf = ProposalPdf.Write(document, job.Info, Brand.Starting);
    var pages = System.Text.RegularExpressions.Regex.Count(
        System.Text.Encoding.Latin1.GetString(pdf),
        "/Type /Page\\b"
    );
    Row(
        $"the library's proposal by line: {pages} pages made and set, {pdf.Length / 1000} kB",
        $"{Median(() => Proposal.Of(estimate, Party.None, Brand.Starting, Trace.Silent), 5):0} ms and {Median(() => ProposalPdf.Write(document, job.Info, Brand.Starting), 5):0} ms",
        "20 pages set under 300 ms"
    );
    Row(
        "all of the library recorded, for its first why",
        $"{Median(() => Reported.Record(job), 5):0} ms",
        "no aim set"
    );
}

static void Priced()
{
    Process.GetCurrentProcess().ProcessorAffinity = 1;
    var plain = Estimate.Of(BigJob.Of(500, 10), Trace.Silent);
    var off = 0;
    var time = Warm(() =>
    {
        var terms = plain.Job.Pricing with { Discounts = [new("as agreed", 1 + ++off % 20, null)] };
        plain.If(plain.Job with { Pricing = terms }, []);
    });
    Row("price alone of 5,000 lines after a changed discount, one core", $"{time:0.000} ms", "under 1 ms");
    Chosen();
    var job = BigJob.OfSections(500, 60);
    var now = Worth.Base(Estimate.Of(job, Trace.Silent));
    foreach (
        var (kind, words, aim) in new[]
        {
            (PieceKind.Section, "60 sections", "under 300 ms"),
            (PieceKind.Place, "500 places", "under 2 s"),
        }
    )
    {
        var pieces = Piece.Of(job, kind).ToArray();
        var worth = Warm(() => Array.ForEach(pieces, p => Worth.Of(now, p)), 3000);
        Row(
            $"worth of {words} of a job of {job.Cells.Count:N0} lines, one core",
            $"{worth:0} ms of {pieces.Length}",
            aim
        );
    }
    foreach (var of in new[] { plain, now })
    {
        var drawn = Warm(() => HowSure.Of(of, HowSure.MostDraws, Trace.Silent), 3000);
        Row(
            $"{HowSure.MostDraws:N0} outcomes of {of.Job.Work.Length} kinds of work, {of.Job.Cells.Count:N0} lines, one core",
            $"{drawn:0} ms",
            "under 1 s"
        );
    }
    var varied = plain.Job;
    Guid[] ids = [.. Enumerable.Range(0, 5).Select(_ => Guid.CreateVersion7())];
    for (var n = 1; n < ids.Length; n++)
        varied = Commands.Apply(varied, new AddVariant(ids[n], $"Variant {n}", ids[0], "First"), _ => null).Job;
    for (var n = 1; n < ids.Length; n++)
    {
        varied = Commands.Apply(varied, new TakeVariant(ids[n - 1], ids[n]), _ => null).Job;
        var item = varied.Work[n];
        varied = Commands.Apply(varied, new SetWork(item.Id, "colour", item.Colour, $"Another {n}"), _ => null).Job;
    }
    var of5 = Estimate.Of(varied, Trace.Silent);
    var priced = PricedVariant.Of(of5).Count(v => v.Estimate is not null && of5.Job.Differs.Count > 3);
    var opened = Warm(() => PricedVariant.Of(of5), 2000);
    Row($"{priced} variants of 5,000 lines side by side, one core", $"{opened:0.0} ms", "under 200 ms");
    var second = Warm(() => SecondEstimate.Of(plain, new SecondEstimator(null, 0, 10), Trace.Silent, ""), 2000);
    Row("5,000 lines as a second estimator has them, with what differs by work, one core", $"{second:0} ms", "");
    Process.GetCurrentProcess().ProcessorAffinity = (1 << Environment.ProcessorCount) - 1;
}

static async Task CostSheets()
{
    if (!OfficeSuite.IsThere)
    {
        Row(
            "cost sheets of the demo jobs recalculated by a headless office suite",
            "left out: none is installed",
            "0 differ"
        );
        return;
    }
    foreach (var job in DemoJobs.Fixed())
    {
        var (figures, suite, differ) = await OfficeSuite.Recalculated(CostWorkbook.Write(job));
        Row(
            $"cost sheet of {job.Info.Name} as a workbook, {figures} formulas recalculated by a headless office suite; results that differ from the core's",
            $"{suite:0.0} ms; {differ}",
            "0 differ"
        );
    }
}

static void Growth()
{
    var entangled = new[] { 125, 500, 2000 }
        .Select(places => Reckoned(BigJob.Entangled(places, 2)).Time * 1000 / (places * 2))
        .ToArray();
    Row(
        "time per line at 250, 1,000 and 4,000, where a door leads into the next room, each assembly has a charge and every second line is an allowance",
        string.Join(", ", entangled.Select(t => $"{t:0.00} µs"))
            + $" (spread {(entangled.Max() / entangled.Min() - 1) * 100:0} %)",
        "within 30 % of each other"
    );
}

static async Task Sent(string server)
{
    var times = new Dictionary<string, List<double>>();
    await WithServer(
        server,
        async (http, _) =>
        {
            var fuzz = await Fuzz.Of(http, http, 1, Guid.CreateVersion7());
            for (var n = 0; n < 3000; n++)
            {
                var shot = await fuzz.Next(n);
                using var request = new HttpRequestMessage(shot.Method, shot.Path);
                if (shot.Body is not null)
                {
                    request.Content = new ByteArrayContent(shot.Body);
                    request.Content.Headers.ContentType = new(shot.Type);
                }
                var watch = Stopwatch.StartNew();
                using var response = await http.SendAsync(request);
                await response.Content.ReadAsByteArrayAsync();
                if (!times.TryGetValue(shot.Operation, out var of))
                    times.Add(shot.Operation, of = []);
                of.Add(watch.Elapsed.TotalMilliseconds);
                if (response.IsSuccessStatusCode && shot.Kind.Length > 0)
                    await fuzz.Changed(shot.Path);
            }
            return 0;
        },
        demo: true
    );
    var all = times.Values.SelectMany(t => t).Order().ToArray();
    var slow = times.OrderByDescending(t => t.Value.Average()).Take(3);
    Row(
        $"3,000 requests put together at random over {times.Count} operations, many spoiled",
        $"median {all[all.Length / 2]:0.0} ms, p95 {all[all.Length * 95 / 100]:0.0} ms, slowest {all[^1]:0} ms; on average slowest: {string.Join(", ", slow.Select(s => $"{s.Key} {s.Value.Average():0} ms"))}",
        "no aim set"
    );
}

static async Task Editors(string server)
{
    foreach (var (thought, seconds, aim) in new[] { (3.0, 60, "p95 150 ms, no errors"), (0.0, 30, "reported") })
    {
        var job = BigJob.Of(500, 10);
        var result = await WithServer(
            server,
            async (http, _) =>
            {
                await Import(http, job);
                return await Load.Run(http, job, 50, seconds, thought);
            }
        );
        Row(
            $"50 editors on one job of 5,000 lines for {seconds} s, {(thought > 0 ? $"{thought:0} s of thought between edits" : "as fast as it goes")}, after 20 s of the same; all on this machine",
            result.ToString(),
            aim
        );
    }
}

static async Task Import(HttpClient http, Job job) =>
    (
        await http.PostAsync(
            "/api/jobs/import",
            new ByteArrayContent(JobFile.Write(job)) { Headers = { { "content-type", "application/json" } } }
        )
    ).EnsureSuccessStatusCode();

static void Row(string what, string measured, string aim) => Console.WriteLine($"| {what} | {measured} | {aim} |");

static (double Time, long Bytes) Reckoned(Job job)
{
    var time = Warm(() => Estimate.Of(job, Trace.Silent));
    var before = GC.GetAllocatedBytesForCurrentThread();
    Estimate.Of(job, Trace.Silent);
    var bytes = GC.GetAllocatedBytesForCurrentThread() - before;
    return (time, bytes);
}

// Until the compiler has had its say: it works in the background, here on the same core.
static double Warm(Action action, int milliseconds = 1500)
{
    for (var warm = Stopwatch.StartNew(); warm.ElapsedMilliseconds < milliseconds; )
        action();
    return Median(action, 5);
}

static double Median(Action action, int runs)
{
    var times = new double[runs];
    for (var i = 0; i < runs; i++)
    {
        GC.Collect();
        var watch = Stopwatch.StartNew();
        action();
        times[i] = watch.Elapsed.TotalMilliseconds;
    }
    Array.Sort(times);
    return times[runs / 2];
}

static string Processor() =>
    File.ReadLines("/proc/cpuinfo")
        .FirstOrDefault(l => l.StartsWith("model name", StringComparison.Ordinal))
        ?.Split(": ")[1]
    ?? "unknown processor";

/// Fifty customers who choose at once: each reads the page, and chooses by the version that it has seen. First of a server that has just started, then as often once more.
static async Task Customers(string server)
{
    const int customers = 50,
        rounds = 20;
    var job = BigJob.Of(500, 10);
    job = job with
    {
        Info = job.Info with { Date = DateTime.UtcNow.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) },
    };
    // The last two pieces of work are offered beside the price.
    foreach (var work in job.Work.TakeLast(2))
        job = job with
        {
            Cells = job.Cells.SetItems(
                job.Cells.Where(c => c.Key.Work == work.Id)
                    .Select(c =>
                        KeyValuePair.Create(c.Key, c.Value with { State = Emendum.Core.Work.CellState.Alternate })
                    )
            ),
        };
    var (first, again, bytes) = await WithServer(
        server,
        async (http, process) =>
        {
            var line = process.StandardOutput.ReadLine()!;
            var outside = line[line.IndexOf("http://", StringComparison.Ordinal)..].TrimEnd('/');
            using var file = new ByteArrayContent(JobFile.Write(job));
            file.Headers.ContentType = new("application/json");
            (await http.PostAsync("/api/jobs/import", file)).EnsureSuccessStatusCode();
            var version = (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job.Id}"))!["version"]!;
            async Task<JsonObject> Post(string path, JsonObject body)
            {
                using var response = await http.PostAsJsonAsync(path, body);
                return (await response.EnsureSuccessStatusCode().Content.ReadFromJsonAsync<JsonObject>())!;
            }
            var revision = Guid.CreateVersion7();
            await Post(
                $"/api/jobs/{job.Id}/revisions",
                new()
                {
                    ["id"] = revision,
                    ["fact"] = Guid.CreateVersion7(),
                    ["base"] = version.DeepClone(),
                    ["how"] = "by hand",
                    ["despite"] = "measured",
                    ["day"] = "",
                    ["time"] = "",
                    ["message"] = null,
                }
            );
            var (cold, warm, size) = (new Choosing(), new Choosing(), 0);
            await Task.WhenAll(
                Enumerable
                    .Range(0, customers)
                    .Select(async n =>
                    {
                        var made = await Post(
                            $"/api/jobs/{job.Id}/revisions/{revision}/links",
                            new()
                            {
                                ["fact"] = Guid.CreateVersion7(),
                                ["for"] = $"Customer {n}",
                                ["signs"] = true,
                            }
                        );
                        using var own = new HttpClient();
                        var link = (string)made["address"]!;
                        for (var round = 0; round < 2 * rounds; round++)
                        {
                            var of = round < rounds ? cold : warm;
                            var watch = Stopwatch.StartNew();
                            var whole = await own.GetByteArrayAsync(link + "/page");
                            var page = JsonNode.Parse(whole)!["now"]!["offer"]!;
                            lock (of)
                            {
                                size = whole.Length;
                                of.Pages.Add(watch.Elapsed.TotalMilliseconds);
                            }
                            var alternate = page["alternates"]![n % 2]!;
                            watch.Restart();
                            using var response = await own.PostAsJsonAsync(
                                link + "/choose",
                                new JsonObject
                                {
                                    ["id"] = Guid.CreateVersion7(),
                                    ["version"] = page["version"]!.DeepClone(),
                                    ["choice"] = null,
                                    ["of"] = alternate["id"]!.DeepClone(),
                                    ["taken"] = !(bool)alternate["taken"]!,
                                }
                            );
                            lock (of)
                            {
                                of.Times.Add(watch.Elapsed.TotalMilliseconds);
                                of.Done += response.IsSuccessStatusCode ? 1 : 0;
                            }
                        }
                    })
            );
            return (cold, warm, size);
        },
        more: ["--public", "0", "--public-rate", "1000000"]
    );
    double At95(List<double> of) => of.Order().ElementAt(of.Count * 95 / 100);
    foreach (var (of, when) in new[] { (first, "of a server that has just started"), (again, "the same once more") })
    {
        Row(
            $"{customers} customers at once on a job of 5,000 lines, {rounds} choices each, {of.Done} taken and the rest told that somebody else has chosen meanwhile, {when}; p95",
            $"{At95(of.Times):0} ms (median {of.Times.Order().ElementAt(of.Times.Count / 2):0} ms)",
            "under 150 ms"
        );
        Row($"the page before each of them, {bytes / 1000:#,0} kB; p95", $"{At95(of.Pages):0} ms", "no aim set");
    }
}

/// A job of 5,000 lines that was accepted: its work order, a tick, an hour, an invoice.
static async Task Delivered(string server)
{
    var job = BigJob.Of(500, 10);
    job = job with
    {
        Info = job.Info with { Date = DateTime.UtcNow.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) },
    };
    await WithServer(
        server,
        async (http, _) =>
        {
            using var file = new ByteArrayContent(JobFile.Write(job));
            file.Headers.ContentType = new("application/json");
            (await http.PostAsync("/api/jobs/import", file)).EnsureSuccessStatusCode();
            var version = (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job.Id}"))!["version"]!;
            async Task<byte[]> Post(string path, JsonObject body)
            {
                using var response = await http.PostAsJsonAsync($"/api/jobs/{job.Id}/{path}", body);
                return await response.EnsureSuccessStatusCode().Content.ReadAsByteArrayAsync();
            }
            var revision = Guid.CreateVersion7();
            await Post(
                "revisions",
                new()
                {
                    ["id"] = revision,
                    ["fact"] = Guid.CreateVersion7(),
                    ["base"] = version.DeepClone(),
                    ["how"] = "by hand",
                    ["despite"] = "measured",
                    ["day"] = "",
                    ["time"] = "",
                    ["message"] = null,
                }
            );
            await Post(
                $"revisions/{revision}/facts",
                new()
                {
                    ["id"] = Guid.CreateVersion7(),
                    ["kind"] = "yesRecorded",
                    ["words"] = "measured",
                    ["day"] = (string)job.Info.Date,
                    ["asSent"] = true,
                    ["photo"] = "",
                }
            );
            async Task<(double First, double Median, int Bytes)> Timed(Func<Task<byte[]>> act)
            {
                var (times, bytes) = (new List<double>(), 0);
                for (var n = 0; n < 11; n++)
                {
                    var watch = Stopwatch.StartNew();
                    bytes = (await act()).Length;
                    times.Add(watch.Elapsed.TotalMilliseconds);
                }
                return (times[0], times.Skip(1).Order().ElementAt(5), bytes);
            }
            void Told(string what, (double First, double Median, int Bytes) of, string aim) =>
                Row(what, $"{of.Median:0} ms (first {of.First:0} ms), {of.Bytes / 1000:#,0} kB", aim);
            var path = $"/api/jobs/{job.Id}/deliver";
            Told("its work order on screen", await Timed(() => http.GetByteArrayAsync(path)), "no aim set");
            var line = JsonNode.Parse(await http.GetByteArrayAsync(path))!["order"]!["lines"]![0]!;
            JsonObject Body() => new() { ["id"] = Guid.CreateVersion7() };
            Told(
                "a tick, and the order after it",
                await Timed(() =>
                {
                    var mark = Body();
                    mark["lines"] = new JsonArray(
                        new JsonObject { ["work"] = line["work"]!.DeepClone(), ["place"] = line["place"]!.DeepClone() }
                    );
                    mark["percent"] = "100";
                    return Post("deliver/done", mark);
                }),
                "no aim set"
            );
            Told("hours used", await Timed(() => http.GetByteArrayAsync(path + "/hours-used")), "no aim set");
            Told(
                "the work order as a PDF",
                await Timed(() => http.GetByteArrayAsync(path + "/work-order.pdf")),
                "no aim set"
            );
            Told("invoices", await Timed(() => http.GetByteArrayAsync(path + "/invoices")), "no aim set");
            Told(
                "its goods against stock and orders",
                await Timed(() => http.GetByteArrayAsync(path + "/buying")),
                "no aim set"
            );
            var goods = JsonNode.Parse(await http.GetByteArrayAsync(path + "/buying"))!;
            Told(
                "goods that are used, and the goods after it",
                await Timed(() =>
                {
                    var move = Body();
                    (move["move"], move["goods"]) = ("used", goods["goods"]![0]!["goods"]!.DeepClone());
                    (move["quantity"], move["day"], move["paid"]) = ("0.25", goods["today"]!.DeepClone(), "");
                    (move["words"], move["work"], move["place"]) = ("measured", null, null);
                    return Post("deliver/buying/moves", move);
                }),
                "no aim set"
            );
            // One crew of ten; all of it laid out from Monday on.
            var crew = Guid.CreateVersion7();
            var crews = (await http.GetFromJsonAsync<JsonObject>("/api/company/crews"))!;
            var with = crews.DeepClone().AsObject();
            with["all"] = new JsonArray(
                new JsonObject
                {
                    ["id"] = crew,
                    ["name"] = "Ten",
                    ["size"] = "10",
                    ["time"] = crews["firm"]!.DeepClone(),
                    ["isOtherFirm"] = false,
                    ["mail"] = "",
                    ["phone"] = "",
                }
            );
            (
                await http.PutAsJsonAsync("/api/company/crews", new JsonObject { ["was"] = crews, ["now"] = with })
            ).EnsureSuccessStatusCode();
            JsonObject Strip() => new() { ["from"] = "", ["byCrew"] = false };
            var empty = JsonNode.Parse(await http.GetByteArrayAsync(path + "/schedule"))!;
            var lay = new JsonObject
            {
                ["strip"] = Strip(),
                ["from"] = "2027-03-01",
                ["crews"] = new JsonArray(
                    [
                        .. empty["sections"]!
                            .AsArray()
                            .Select(s => new JsonObject { ["section"] = s!["name"]!.DeepClone(), ["crew"] = crew }),
                    ]
                ),
            };
            Told(
                "all of it laid out, before it is kept",
                await Timed(() => Post("deliver/schedule/lay-out", lay)),
                "no aim set"
            );
            var laid = JsonNode.Parse(await Post("deliver/schedule/lay-out", lay))!;
            await Post(
                "commands",
                new()
                {
                    ["id"] = Guid.CreateVersion7(),
                    ["base"] = version.DeepClone(),
                    ["client"] = Guid.CreateVersion7(),
                    ["command"] = new JsonObject { ["type"] = "changeTasks", ["tasks"] = laid["changes"]!.DeepClone() },
                }
            );
            var tasks = laid["changes"]!.AsArray().Count;
            Told(
                $"its schedule of {tasks} tasks",
                await Timed(() => http.GetByteArrayAsync(path + "/schedule")),
                "no aim set"
            );
            Told(
                "what moving the last of them would do",
                await Timed(() =>
                    Post(
                        "deliver/schedule/move",
                        new()
                        {
                            ["strip"] = Strip(),
                            ["task"] = laid["changes"]!.AsArray()[^1]!["now"]!["id"]!.DeepClone(),
                            ["day"] = "",
                            ["by"] = 1,
                        }
                    )
                ),
                "no aim set"
            );
            return 0;
        }
    );
}

static async Task<T> WithServer<T>(
    string server,
    Func<HttpClient, Process, Task<T>> measure,
    bool demo = false,
    string[]? more = null
)
{
    var folder = Directory.CreateTempSubdirectory("emendum-bench-").FullName;
    var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true };
    foreach (
        var argument in new[] { server, "--port", "0", "--data", folder, "--demo", demo ? "true" : "false" }.Concat(
            more ?? []
        )
    )
        start.ArgumentList.Add(argument);
    using var process = Process.Start(start)!;
    try
    {
        var line = process.StandardOutput.ReadLine()!;
        using var http = new HttpClient
        {
            BaseAddress = new Uri(line[line.IndexOf("http://", StringComparison.Ordinal)..].Split(' ')[0]),
        };
        return await measure(http, process);
    }
    finally
    {
        process.Kill();
        process.WaitForExit();
        Directory.Delete(folder, recursive: true);
    }
}

static Task<(double Preview, double Taken, double[] Searches)> Book(string server) =>
    WithServer(
        server,
        async (http, _) =>
        {
            string[] words = ["brass", "oak", "slate", "white", "grey", "fine", "coarse", "long", "short", "heavy"],
                things = ["hinge", "board", "sealer", "film", "tile", "paint", "strip", "screw", "mortar", "panel"];
            JsonArray rows =
            [
                .. Enumerable
                    .Range(0, 10_000)
                    .Select(i =>
                        (JsonNode)
                            new JsonArray(
                                "material",
                                $"{words[i % 10]} {things[i / 10 % 10]} {i}",
                                $"Section {i % 40}",
                                "each",
                                $"box: 10 at {i % 90 + 1}.50",
                                "5",
                                $"Supplier {i % 25}",
                                $"C-{i:D5}"
                            )
                    ),
            ];
            var table = new JsonObject
            {
                ["columns"] = new JsonArray("Kind", "Name", "Section", "Unit", "Packs", "Waste %", "Supplier", "Code"),
                ["rows"] = rows,
                ["mapping"] = new JsonObject
                {
                    ["kind"] = 0,
                    ["name"] = 1,
                    ["section"] = 2,
                    ["unit"] = 3,
                    ["packs"] = 4,
                    ["wastePercent"] = 5,
                    ["supplier"] = 6,
                    ["code"] = 7,
                },
            };
            var watch = Stopwatch.StartNew();
            (await http.PostAsJsonAsync("/api/book/read-table", table)).EnsureSuccessStatusCode();
            var preview = watch.Elapsed.TotalMilliseconds;
            watch.Restart();
            (
                await http.PostAsJsonAsync(
                    "/api/book/take-table",
                    new JsonObject { ["table"] = table, ["leaveOut"] = false }
                )
            ).EnsureSuccessStatusCode();
            var taken = watch.Elapsed.TotalMilliseconds;
            var times = new List<double>();
            for (var i = 0; i < 220; i++)
            {
                watch.Restart();
                (
                    await http.GetAsync(
                        $"/api/book?words={words[i % 10]} {(i % 3 == 0 ? "" : things[i / 7 % 10])} {(i % 4 == 0 ? i.ToString(CultureInfo.InvariantCulture) : "")}"
                    )
                ).EnsureSuccessStatusCode();
                if (i >= 20)
                    times.Add(watch.Elapsed.TotalMilliseconds);
            }
            return (preview, taken, times.Order().ToArray());
        }
    );

static Task<double[]> Edits(Job job, string server) =>
    WithServer(
        server,
        async (http, _) =>
        {
            await Import(http, job);
            var (times, window) = (new List<double>(), Guid.CreateVersion7());
            for (var i = 0; i < 400; i++)
            {
                var (work, place) = (job.Work[i % job.Work.Length], job.Places[i * 7 % job.Places.Length]);
                var body = new JsonObject
                {
                    ["id"] = Guid.CreateVersion7().ToString(),
                    ["base"] = i,
                    ["client"] = window.ToString(),
                    ["command"] = new JsonObject
                    {
                        ["type"] = "fillCells",
                        ["state"] = "excluded",
                        ["work"] = new JsonArray(work.Id.ToString()),
                        ["places"] = new JsonArray(place.Id.ToString()),
                        ["was"] = "i",
                    },
                };
                var watch = Stopwatch.StartNew();
                (await http.PostAsJsonAsync($"/api/jobs/{job.Id}/commands", body)).EnsureSuccessStatusCode();
                if (i >= 200)
                    times.Add(watch.Elapsed.TotalMilliseconds);
            }
            return times.Order().ToArray();
        }
    );

/// <summary>What customers have met: how long a choice took, how long the page before it, and how many choices were taken.</summary>
sealed class Choosing
{
    public List<double> Times { get; } = [];
    public List<double> Pages { get; } = [];
    public int Done { get; set; }
}
