using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;

namespace Emendum.Web.Tests;

/// <summary>A request as it was sent, so that one that goes wrong can be sent again.</summary>
internal sealed record Shot(HttpMethod Method, string Path, string Operation, string Kind, byte[]? Body, string Type)
{
    public override string ToString() =>
        $"{Method} {Path} ({Operation} {Kind})\n{(Body is null ? "" : Encoding.UTF8.GetString(Body.AsSpan(0, Math.Min(Body.Length, 4000))))}";
}

/// <summary>
/// Makes requests out of real ones: values that the server has given, put together as the API description says, so that many are taken; then most are spoiled in one way or another. A new operation, and
/// a new kind of command, is met without a word here: both are read from the description.
/// </summary>
internal sealed class Fuzz
{
    private const int MostKept = 300;
    private static readonly string[] Hostile =
    [
        "",
        " ",
        "0",
        "-1",
        "1e999",
        "NaN",
        "999999999999999999999999999999",
        "0.0000001",
        "1/0",
        "../../etc/passwd",
        "=1+1",
        "'; DROP TABLE job; --",
        "<script>alert(1)</script>",
        "\u0000\u0007\u001b",
        "a\nb\rc",
        "\u202e\u200b\ufffd",
        "12'6 x 11 x 8; door 3 x 6'8",
        "12 x x 8",
        "((((((((((",
        "180 ft² per h",
        "0 ft² per h",
        "2026-02-30",
    ];

    private readonly Random random;
    private readonly Guid client;
    private readonly HttpClient http;
    private readonly JsonObject description;
    private readonly Dictionary<string, List<JsonNode>> pools = [];
    private readonly Dictionary<string, JsonObject> files = [];
    private readonly List<string> jobs = [];
    private readonly List<(string Job, string Revision)> sentOnes = [];
    private readonly List<string> mails = [];
    private readonly List<(string Job, string Revision, string Link)> links = [];
    private readonly List<(string Job, string Revision, string Question)> questions = [];
    private readonly HttpClient outside;
    private string[] bookWork = [],
        bookProducts = [];
    private byte[] jobFile = [],
        table = [],
        bookFile = [];

    /// <summary>The smallest picture: one pixel (PNG).</summary>
    private static readonly byte[] Picture = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
    );

    /// <summary>What else is asked for by name: purposes of tables, rules, figures of a preview.</summary>
    private static readonly Dictionary<string, string[]> Words = new()
    {
        ["purpose"] = ["places", "schedule", "book"],
        ["kind"] = ["section", "place", "work"],
        ["draws"] = ["100", "1000"],
        ["take"] = ["5", "0"],
        ["rule"] = ["net", "gross", "vob", "over 10 ft2; 5 ft2; 3 ft"],
        ["figure"] = ["totals/hours", "price/total", "price/beforeTax"],
    };

    private Fuzz(HttpClient http, HttpClient outside, JsonObject description, int seed, Guid client) =>
        (this.http, this.outside, this.description, random, this.client) = (
            http,
            outside,
            description,
            new(seed),
            client
        );

    /// <summary>What can be asked: method, path and the description of each operation, in the order of the description.</summary>
    public IReadOnlyList<(HttpMethod Method, string Path, JsonObject Operation)> Operations { get; private set; } = [];

    /// <summary>Kinds of command.</summary>
    public IList<string> Kinds { get; private set; } = [];

    /// <summary>Reads the description, and what the server has.</summary>
    public static async Task<Fuzz> Of(HttpClient http, HttpClient outside, int seed, Guid client)
    {
        var fuzz = new Fuzz(
            http,
            outside,
            (await http.GetFromJsonAsync<JsonObject>("/api/openapi.json"))!,
            seed,
            client
        );
        fuzz.Operations =
        [
            .. fuzz.description["paths"]!
                .AsObject()
                .SelectMany(p =>
                    p.Value!.AsObject()
                        .Select(o => (new HttpMethod(o.Key.ToUpperInvariant()), p.Key, o.Value!.AsObject()))
                ),
        ];
        fuzz.Kinds = [.. fuzz.Alternatives(fuzz.Schema("Command")).Select(fuzz.TypeOf).Order(StringComparer.Ordinal)];
        await fuzz.Look();
        return fuzz;
    }

    private JsonObject Schema(string name) => description["components"]!["schemas"]![name]!.AsObject();

    private JsonObject Resolved(JsonNode schema) =>
        (string?)schema["$ref"] is { } name ? Schema(name.Split('/')[^1]) : schema.AsObject();

    private JsonObject[] Alternatives(JsonObject schema) =>
        [.. ((schema["anyOf"] ?? schema["oneOf"]) as JsonArray ?? []).Select(s => Resolved(s!))];

    private string TypeOf(JsonObject schema) =>
        schema["properties"]?["type"] is { } type ? (string?)Resolved(type)["enum"]?[0] ?? "" : "";

    /// <summary>Asks for everything that can be asked for, and remembers the values; done again now and then, since they change.</summary>
    public async Task Look()
    {
        jobs.Clear();
        foreach (var job in (await http.GetFromJsonAsync<JsonArray>("/api/jobs"))!)
            jobs.Add((string)job!["id"]!);
        sentOnes.Clear();
        mails.Clear();
        foreach (var mail in (await http.GetFromJsonAsync<JsonArray>("/api/outbox"))!)
        {
            mails.Add((string)mail!["id"]!);
            // A customer asks something by the link that is in it.
            if (((string)mail["words"]!).Split('\n').FirstOrDefault(l => l.Contains("/p/")) is { } link && Chance(30))
                using (
                    await outside.PostAsJsonAsync(
                        new Uri(link.Trim()).AbsolutePath + "/questions",
                        new JsonObject { ["id"] = Id(), ["words"] = "When do you begin?" }
                    )
                ) { }
        }
        links.Clear();
        questions.Clear();
        foreach (var job in jobs.Take(6))
        {
            var revisions = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}/revisions");
            foreach (var revision in revisions!["revisions"]!.AsArray())
            {
                sentOnes.Add((job, (string)revision!["id"]!));
                foreach (var link in revision["links"]!.AsArray())
                    links.Add((job, (string)revision["id"]!, (string)link!["id"]!));
            }
            var asked = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}/revisions/questions");
            foreach (var question in asked!["questions"]!.AsArray())
                questions.Add((job, (string)question!["revision"]!, (string)question["id"]!));
        }
        async Task<string[]> InBook(string what) =>
            [.. (await http.GetFromJsonAsync<JsonArray>($"/api/book/{what}"))!.Select(e => (string)e!["id"]!)];
        (bookWork, bookProducts) = (await InBook("work"), await InBook("products"));
        foreach (var job in jobs.Take(6))
        {
            var file = await http.GetByteArrayAsync($"/api/jobs/{job}/file");
            if (jobFile.Length == 0)
                jobFile = file;
            files[job] = JsonNode.Parse(file)!.AsObject();
            Remember(files[job], "job");
        }
        if (table.Length == 0)
        {
            table = await http.GetByteArrayAsync($"/api/jobs/{jobs[0]}/places.csv");
            bookFile = await http.GetByteArrayAsync("/api/book/book.json");
        }
        foreach (
            var (method, path, operation) in Operations.Where(o => o.Method == HttpMethod.Get && !o.Path.Contains('.'))
        )
        {
            using var response = await http.GetAsync(Filled(path, operation));
            if (
                response.IsSuccessStatusCode
                && response.Content.Headers.ContentType?.MediaType == "application/json"
                && response.Content.Headers.ContentLength is null or < 5_000_000
            )
                Remember(await response.Content.ReadFromJsonAsync<JsonNode>(), path.Contains("book") ? "entry" : "job");
        }
    }

    /// <summary>Keeps values by the name of what they stand under; ids by what they are ids of.</summary>
    private void Remember(JsonNode? node, string under)
    {
        switch (node)
        {
            case JsonObject thing:
                foreach (var (name, value) in thing)
                {
                    Keep(name, value);
                    if (name == "id")
                        Keep(under, value);
                    Remember(value, name);
                }
                break;
            case JsonArray list:
                var one = under switch
                {
                    "entries" => "entry",
                    _ => under.TrimEnd('s'),
                };
                foreach (var item in list)
                    Remember(item, one);
                break;
        }
    }

    private void Keep(string name, JsonNode? value)
    {
        if (value is null || value.ToJsonString().Length > 3000)
            return;
        if (!pools.TryGetValue(name, out var pool))
            pools.Add(name, pool = []);
        if (pool.Count < MostKept)
            pool.Add(value.DeepClone());
        else
            pool[random.Next(MostKept)] = value.DeepClone();
    }

    private T One<T>(IList<T> of) => of[random.Next(of.Count)];

    private bool Chance(int percent) => random.Next(100) < percent;

    private string Id() => Guid.CreateVersion7().ToString();

    /// <summary>A path with its parts, and what is asked after it, filled in.</summary>
    private string Filled(string path, JsonObject operation, string? job = null)
    {
        var query = new List<string>();
        foreach (var parameter in operation["parameters"] as JsonArray ?? [])
        {
            var (name, at) = ((string)parameter!["name"]!, (string)parameter["in"]!);
            var pool =
                name == "id" && path.StartsWith("/api/jobs/", StringComparison.Ordinal) ? "job"
                : name == "id" && path.StartsWith("/api/customers/", StringComparison.Ordinal) ? "customerId"
                : name == "id" ? "entry"
                : name == "figure" ? "path"
                : name;
            var value =
                job is not null && pool == "job" ? job
                : Words.TryGetValue(name, out var words) && Chance(70) ? One(words)
                : Chance(92) && pools.TryGetValue(pool, out var known) ? One(known).ToString()
                : name is "since" or "levels" ? random.Next(-1, 40).ToString(CultureInfo.InvariantCulture)
                : Chance(50) ? Id()
                : One(Hostile);
            // The web server itself turns away a path with a NUL in it, before anybody can say a word.
            value = value.Replace("\0", "", StringComparison.Ordinal);
            // A line of more than eight kilobytes is refused by the server before any of ours is asked.
            value = value[..Math.Min(value.Length, 1000)];
            if (at == "path")
                path = path.Replace($"{{{name}}}", Uri.EscapeDataString(value), StringComparison.Ordinal);
            else if ((bool?)parameter["required"] == true || Chance(50))
                query.Add($"{name}={Uri.EscapeDataString(value)}");
        }
        return query.Count == 0 ? path : $"{path}?{string.Join('&', query)}";
    }

    /// <summary>The next request. <paramref name="n"/> goes through all operations and kinds of command in turn; most are spoiled, unless they are to be <paramref name="whole"/>.</summary>
    public async Task<Shot> Next(int n, bool whole = false)
    {
        // Every second one is a command: there are many kinds, behind one operation.
        var commands = Operations.First(o => o.Path == "/api/jobs/{id}/commands");
        var (method, path, operation) = n % 2 == 0 ? commands : Operations[n / 2 % Operations.Count];
        var asDescribed = path;
        var kind = Kinds[n / 2 % Kinds.Count];
        var job = One(jobs);
        // Few jobs have a schedule, rhythms, quotes or choices.
        var few = kind switch
        {
            "setScheduleItem" or "setScheduleWork" or "priceAsCompared" => "schedule",
            "setRhythm" or "takeFrequency" or "setVisit" or "removeRhythm" => "rhythms",
            "setQuote" or "takeQuote" or "removeQuote" => "quotes",
            "setChoice" or "setOption" or "takeChoice" or "removeChoice" => "choices",
            "setBlock" or "moveBlock" or "removeBlock" or "takeText" => "blocks",
            _ => "",
        };
        if (n % 2 == 0 && few.Length > 0)
            job = files.FirstOrDefault(f => f.Value[few] is JsonArray { Count: > 0 }).Key ?? job;
        if (whole && kind == "takeFrequency")
            await AddRhythm(job);
        if (path.Contains("/revisions/", StringComparison.Ordinal) && sentOnes.Count > 0 && Chance(90))
        {
            (job, var revision) = One(sentOnes);
            path = path.Replace("{revision}", revision, StringComparison.Ordinal);
            if (path.EndsWith("/compared", StringComparison.Ordinal))
                path += $"?from={revision}";
        }
        var delivers =
            path.Contains("/deliver", StringComparison.Ordinal)
            || path.StartsWith("/api/stock", StringComparison.Ordinal)
                ? await Accepted()
                : null;
        if (delivers is not null && Chance(90))
        {
            job = path.EndsWith("/deliver/visits", StringComparison.Ordinal) ? Round : Gallery;
            path = OfDelivery(path, delivers);
        }
        else if (path.StartsWith("/api/bank/{entry}", StringComparison.Ordinal))
            path = path.Replace("{entry}", moneyCame, StringComparison.Ordinal);
        else if (path.Contains("/crews/{crew}", StringComparison.Ordinal))
            path = path.Replace("{crew}", Wyn, StringComparison.Ordinal);
        else if (path.EndsWith("/revoke", StringComparison.Ordinal) && links.Count > 0 && Chance(90))
        {
            (job, var revision, var link) = One(links);
            path = asDescribed
                .Replace("{revision}", revision, StringComparison.Ordinal)
                .Replace("{link}", link, StringComparison.Ordinal);
        }
        var answered = questions.Count > 0 ? One(questions) : default;
        if (path.EndsWith("/answers", StringComparison.Ordinal) && questions.Count > 0 && Chance(90))
        {
            job = answered.Job;
            path = asDescribed.Replace("{revision}", answered.Revision, StringComparison.Ordinal);
        }
        if (path.StartsWith("/api/outbox/", StringComparison.Ordinal) && mails.Count > 0 && Chance(90))
            path = path.Replace("{id}", One(mails), StringComparison.Ordinal);
        var filled = path.Contains('?', StringComparison.Ordinal)
            ? path.Replace("{id}", job, StringComparison.Ordinal)
            : Filled(path, operation, Chance(95) ? job : null);
        var name = $"{method} {asDescribed}";
        if (operation["requestBody"]?["content"] is not JsonObject content)
            return new(method, filled, name, "", null, "");
        var (type, schema) = content.First();
        if (schema!["schema"] is null || (string?)Resolved(schema["schema"]!)["format"] is "byte" or "binary")
            return new(method, filled, name, "", Bytes(path), type);
        var body = Value(Resolved(schema["schema"]!), "", 0, kind, job);
        if (
            body is JsonObject sent
            && (sent["command"] as JsonObject ?? sent) is var command
            && command.ContainsKey("type")
        )
            Seen(command, job, whole);
        if (
            method == HttpMethod.Post
            && path.EndsWith("/revisions", StringComparison.Ordinal)
            && body is JsonObject send
        )
        {
            var stands = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}");
            (send["id"], send["fact"], send["base"]) = (Id(), Id(), stands!["version"]!.DeepClone());
            (send["how"], send["despite"]) = ("by hand", Chance(90) ? "because" : "");
            send["message"] = Chance(50) ? Message() : null;
            (send["day"], send["time"]) = Chance(85)
                ? ("", "")
                : (One<string>(["2099-01-01", "2020-01-01", "tomorrow"]), One<string>(["8:00", "25:00"]));
        }
        if (delivers is not null && body is JsonObject delivered)
        {
            Delivered(asDescribed, delivered, delivers);
            if (asDescribed.Contains("/deliver/changes", StringComparison.Ordinal))
                await Changed(delivered, delivers);
            if (
                asDescribed.Contains("/buying", StringComparison.Ordinal)
                || asDescribed.StartsWith("/api/stock", StringComparison.Ordinal)
            )
                Bought(asDescribed, delivered, delivers);
            if (asDescribed.Contains("/deliver/schedule", StringComparison.Ordinal))
                Scheduled(asDescribed, delivered, delivers);
            if (asDescribed.EndsWith("/deliver/visits", StringComparison.Ordinal))
                await Visited(delivered);
        }
        if (asDescribed.StartsWith("/api/bank/", StringComparison.Ordinal) && body is JsonObject banked)
            await Banked(asDescribed, banked);
        if (
            path.EndsWith("/api/company/crews/moves", StringComparison.Ordinal)
            && await http.GetFromJsonAsync<JsonObject>("/api/company/crews") is { } crews
        )
            body = crews;
        if (path.EndsWith("/revisions/cancel", StringComparison.Ordinal) && body is JsonObject cancel)
        {
            var told = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}/revisions");
            cancel["id"] = told!["scheduled"]?["id"]?.DeepClone() ?? Id();
        }
        if (method == HttpMethod.Post && path.EndsWith("/mails", StringComparison.Ordinal) && body is JsonObject again)
        {
            again["message"] = Message();
            // A paper of delivery goes under its own id.
            if (delivers is null)
                again["fact"] = Id();
        }
        if (path.EndsWith("/revoke", StringComparison.Ordinal) && body is JsonObject revoke)
            revoke["fact"] = Id();
        if (
            method == HttpMethod.Post
            && asDescribed.EndsWith("/revisions/{revision}/links", StringComparison.Ordinal)
            && body is JsonObject made
        )
            (made["fact"], made["for"]) = (Id(), "Ida Marrow");
        if (path.EndsWith("/accept", StringComparison.Ordinal) && body is JsonObject yes)
        {
            using var shown = await http.GetAsync(
                path.Replace("{id}", job, StringComparison.Ordinal)
                    .Replace("/accept", "/page", StringComparison.Ordinal)
            );
            var page = shown.IsSuccessStatusCode ? await shown.Content.ReadFromJsonAsync<JsonObject>() : null;
            (yes["id"], yes["revision"], yes["selection"]) = (Id(), page?["now"]?["revision"]?.DeepClone() ?? "A", 0);
            (yes["total"], yes["drawn"]) = (
                page?["now"]?["statement"]?["total"]?.DeepClone() ?? "1.00",
                Chance(50) ? "" : "1,2 3,4"
            );
            (yes["name"], yes["declares"]) = ("Ida Marrow", Chance(90));
        }
        if (path.EndsWith("/signatures", StringComparison.Ordinal) && body is JsonObject too)
            (too["id"], too["name"], too["drawn"]) = (Id(), "Nora Pell", "");
        if (path.EndsWith("/answers", StringComparison.Ordinal) && body is JsonObject says)
            (says["id"], says["question"]) = (Id(), answered.Question);
        if (method == HttpMethod.Post && path.EndsWith("/facts", StringComparison.Ordinal) && body is JsonObject fact)
            (fact["id"], fact["day"]) = (Id(), One<string>(["", "", "2999-01-01", "2020-02-30"]));
        if (method == HttpMethod.Put && body is JsonObject put && Chance(85))
            await AsItStands(filled, put);
        var text = body?.ToJsonString() ?? "null";
        if (!whole && Chance(55))
            text = Spoiled(body, text);
        return new(
            method,
            filled,
            name,
            path.EndsWith("/commands", StringComparison.Ordinal) ? kind : "",
            Raw(text),
            type
        );
    }

    /// <summary>The demo's job that was accepted.</summary>
    private const string Gallery = "01930000-0000-7000-8000-000000000994";

    /// <summary>The demo's round.</summary>
    private const string Round = "01930000-0000-7000-8000-000000000995";

    /// <summary>Something is said of a visit that is there, which can be said of it mostly.</summary>
    private async Task Visited(JsonObject body)
    {
        using var answer = await http.GetAsync($"/api/jobs/{Round}/deliver/visits");
        if (await answer.Content.ReadAsStringAsync() is not { Length: > 4 } text)
            return;
        var visit = One(JsonNode.Parse(text)!["visits"]!.AsArray())!;
        (body["id"], body["day"], body["hours"]) = (Id(), "", new JsonArray());
        (body["words"], body["said"]) = (
            Chance(80) ? "because" : "",
            One<string>(["done", "leftOut", "leftOutByThem", "open"])
        );
        body["visits"] = new JsonArray(
            new JsonObject { ["visit"] = visit["id"]!.DeepClone(), ["kind"] = visit["kind"]!.DeepClone() }
        );
    }

    /// <summary>A job gets a rhythm that can have another frequency: others may all be events by now, or be done instead of each other.</summary>
    private async Task AddRhythm(string job)
    {
        using var answer = await http.PostAsJsonAsync(
            $"/api/jobs/{job}/commands",
            new JsonObject
            {
                ["id"] = Id(),
                ["base"] = 0,
                ["client"] = Id(),
                ["command"] = new JsonObject
                {
                    ["type"] = "addRhythm",
                    ["rhythm"] = new JsonObject
                    {
                        ["id"] = Id(),
                        ["rank"] = "",
                        ["name"] = $"Now and then {random.Next(1000)}",
                        ["kind"] = "times",
                        ["times"] = 4,
                        ["ownVisit"] = true,
                    },
                    ["usual"] = false,
                },
            }
        );
        await Changed($"/api/jobs/{job}/commands");
    }

    private readonly string moneyCame = new('b', 64);

    /// <summary>Money came by bank, and some of it goes to what is owed.</summary>
    private async Task Banked(string path, JsonObject body)
    {
        var view = (await http.GetFromJsonAsync<JsonObject>("/api/bank"))!;
        var owed = view["owed"]!.AsArray();
        JsonArray Parts() =>
            owed.Count == 0
                ? []
                :
                [
                    new JsonObject
                    {
                        ["job"] = owed[0]!["job"]!.DeepClone(),
                        ["invoice"] = owed[0]!["invoice"]!.DeepClone(),
                        ["amount"] = One<string>(["0.01", "", "0.02"]),
                        ["discount"] = "",
                    },
                ];
        if (path.EndsWith("/use", StringComparison.Ordinal))
        {
            body["id"] = Id();
            if (Parts() is [{ } part])
            {
                body["part"] = part.DeepClone();
                body["part"]!["amount"] = "0.01";
            }
            return;
        }
        body["entries"] = new JsonArray(
            new JsonObject
            {
                ["line"] = new JsonObject
                {
                    ["id"] = Chance(50)
                        ? moneyCame
                        : string.Concat(Enumerable.Range(0, 64).Select(_ => "0123456789abcdef"[random.Next(16)])),
                    ["day"] = $"{DateTime.UtcNow.AddDays(-1):yyyy-MM-dd}",
                    ["amount"] = "5000",
                    ["currency"] = "",
                    ["payer"] = "Ida",
                    ["account"] = "",
                    ["words"] = "thanks",
                },
                ["customer"] = null,
                ["parts"] = Chance(50) ? Parts() : new JsonArray(),
            }
        );
    }

    /// <summary>The demo's crew that has work.</summary>
    private const string Wyn = "01930000-0000-7000-8000-000000000801";

    /// <summary>What is delivered of it, with its invoices and what one over 1.00 before tax would come to. Where the yes was annulled meanwhile it is said again; null where it cannot be.</summary>
    private async Task<JsonObject?> Accepted()
    {
        var view = (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver"))!;
        if (!(bool)view["accepted"]!)
        {
            var sent = (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/revisions"))!["revisions"]![0]!;
            using var yes = await http.PostAsJsonAsync(
                $"/api/jobs/{Gallery}/revisions/{(string)sent["id"]!}/facts",
                new JsonObject
                {
                    ["id"] = Id(),
                    ["kind"] = "yesRecorded",
                    ["words"] = "said again",
                    ["day"] = view["today"]!.DeepClone(),
                    ["asSent"] = true,
                    ["photo"] = "",
                }
            );
            view = (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver"))!;
            if (!(bool)view["accepted"]!)
                return null;
        }
        view["billed"] = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/invoices");
        view["completion"] = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/completion");
        view["buying"] = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/buying");
        using var draft = await http.PostAsJsonAsync(
            $"/api/jobs/{Gallery}/deliver/invoices/draft",
            new JsonObject
            {
                ["by"] = "amount",
                ["step"] = null,
                ["value"] = "1",
            }
        );
        view["changes"] = await Changes(view);
        view["schedule"] = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/schedule");
        view["one"] = (await draft.Content.ReadFromJsonAsync<JsonObject>())!["total"]?.DeepClone() ?? "";
        // There is one to be paid and sent, whatever was credited.
        if (!view["billed"]!["invoices"]!.AsArray().Any(i => (bool)i!["mayCredit"]!))
        {
            using var issued = await http.PostAsJsonAsync(
                $"/api/jobs/{Gallery}/deliver/invoices",
                new JsonObject
                {
                    ["id"] = Id(),
                    ["wanted"] = new JsonObject
                    {
                        ["by"] = "amount",
                        ["step"] = null,
                        ["value"] = "1",
                    },
                    ["total"] = view["one"]!.DeepClone(),
                    ["supplied"] = "",
                    ["reason"] = "one more",
                }
            );
            view["billed"] = await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/invoices");
        }
        return view;
    }

    /// <summary>A path about something that is there.</summary>
    private string OfDelivery(string path, JsonObject of)
    {
        string First(string list, string where) =>
            (string?)of[list]?.AsArray().FirstOrDefault(o => where.Length == 0 || (string?)o!["state"] == where)?["id"]
            ?? Id();
        var billed = of["billed"]!["invoices"]!.AsArray();
        var stands = billed.FirstOrDefault(i => (bool)i!["mayCredit"]!);
        var payment = billed.SelectMany(i => i!["payments"]!.AsArray()).FirstOrDefault(p => (bool)p!["stands"]!);
        var orders = of["buying"]!["orders"]!.AsArray();
        var order = orders.FirstOrDefault(o => (bool)o!["isOpen"]!) ?? orders.FirstOrDefault();
        IEnumerable<JsonNode?> facts =
            path.Contains("/order-facts/", StringComparison.Ordinal) ? orders.SelectMany(o => o!["happened"]!.AsArray())
            : path.Contains("/moves/", StringComparison.Ordinal) ? of["buying"]!["moves"]!.AsArray()
            : [];
        var fact = facts.FirstOrDefault(f => (bool)f!["mayTakeBack"]!);
        if (
            path.EndsWith("/schedule/work-order.pdf", StringComparison.Ordinal)
            && of["schedule"]!["days"]!.AsArray().FirstOrDefault() is { } day
        )
            path += $"?crew={(string)day["crew"]!}&day={(string)day["day"]!}";
        return path.Replace("{link}", First("links", "open"), StringComparison.Ordinal)
            .Replace(
                "{snag}",
                (string?)of["completion"]!["snags"]!.AsArray().FirstOrDefault()?["id"] ?? Id(),
                StringComparison.Ordinal
            )
            .Replace("{order}", (string?)order?["id"] ?? Id(), StringComparison.Ordinal)
            .Replace("{fact}", (string?)fact?["id"] ?? First("hours", ""), StringComparison.Ordinal)
            .Replace("{invoice}", (string?)stands?["id"] ?? Id(), StringComparison.Ordinal)
            .Replace("{payment}", (string?)payment?["id"] ?? Id(), StringComparison.Ordinal);
    }

    /// <summary>Change orders, and what differs: where nothing does, a place more is painted; one that waits is agreed to.</summary>
    private async Task<JsonObject> Changes(JsonObject view)
    {
        async Task<JsonObject> Now() =>
            (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{Gallery}/deliver/changes"))!;
        var changes = await Now();
        if (changes["changes"]!.AsArray().FirstOrDefault(c => (string)c!["state"]! == "sent") is { } waits)
        {
            using var yes = await http.PostAsJsonAsync(
                $"/api/jobs/{Gallery}/revisions/{(string)waits["id"]!}/facts",
                new JsonObject
                {
                    ["id"] = Id(),
                    ["kind"] = "yesRecorded",
                    ["words"] = "by word",
                    ["day"] = view["today"]!.DeepClone(),
                    ["asSent"] = true,
                    ["photo"] = "",
                }
            );
            return await Now();
        }
        if (changes["differs"]!.AsArray().Any(p => (string)p!["sent"]! == ""))
            return changes;
        var place = Id();
        async Task Do(JsonObject command)
        {
            using var done = await http.PostAsJsonAsync(
                $"/api/jobs/{Gallery}/commands",
                new JsonObject
                {
                    ["id"] = Id(),
                    ["base"] = 0,
                    ["client"] = Id(),
                    ["command"] = command,
                }
            );
        }
        await Do(
            new()
            {
                ["type"] = "addPlace",
                ["place"] = place,
                ["line"] = "Porch 10 x 8 x 8",
                ["group"] = "",
                ["after"] = null,
            }
        );
        await Do(
            new()
            {
                ["type"] = "fillCells",
                ["work"] = new JsonArray(view["order"]!["lines"]![0]!["work"]!.DeepClone()),
                ["places"] = new JsonArray(place),
                ["was"] = ".",
                ["state"] = "included",
            }
        );
        return await Now();
    }

    /// <summary>A change order of what differs, or the question what it would come to.</summary>
    private async Task Changed(JsonObject body, JsonObject of)
    {
        var wanted = body["wanted"] as JsonObject ?? body;
        wanted["title"] = One<string>(["The porch, too", "The porch, too", "", new string('x', 500)]);
        wanted["pieces"] = new JsonArray(
            [
                .. of["changes"]!["differs"]!
                    .AsArray()
                    .Where(p => (string)p!["sent"]! == "")
                    .Select(p => p!["id"]!.DeepClone()),
            ]
        );
        (wanted["goods"], wanted["withStep"]) = (new JsonArray(), Chance(70) ? null : 0);
        if (wanted == body)
            return;
        (body["id"], body["fact"], body["until"]) = (Id(), Id(), One<string>(["", "2099-01-01", "soon"]));
        (body["how"], body["words"], body["message"]) = ("by hand", "", Chance(60) ? null : Message());
        using var draft = await http.PostAsJsonAsync($"/api/jobs/{Gallery}/deliver/changes/draft", wanted);
        body["total"] = (await draft.Content.ReadFromJsonAsync<JsonObject>())!["total"]?.DeepClone() ?? "";
    }

    /// <summary>What is sent there, as it should be for the most part.</summary>
    private void Delivered(string path, JsonObject body, JsonObject of)
    {
        var line = One([.. of["order"]!["lines"]!.AsArray()])!;
        if (body.ContainsKey("id"))
            body["id"] = Id();
        if (path.EndsWith("/done", StringComparison.Ordinal))
            (body["lines"], body["percent"]) = (
                new JsonArray(
                    new JsonObject { ["work"] = line["work"]!.DeepClone(), ["place"] = line["place"]!.DeepClone() }
                ),
                One<string>(["100", "50", "0", "101"])
            );
        if (path.EndsWith("/hours", StringComparison.Ordinal))
        {
            (body["for"], body["work"], body["place"]) = (
                "work",
                line["work"]!.DeepClone(),
                line["place"]!.DeepClone()
            );
            (body["person"], body["day"], body["hours"], body["words"]) = (
                $"Hand {random.Next(100)}",
                of["today"]!.DeepClone(),
                One<string>(["0.5", "1.25", "30", "x"]),
                ""
            );
        }
        if (path.EndsWith("/links", StringComparison.Ordinal))
            (body["for"], body["sections"]) = ("Idris", new JsonArray());
        if (
            path.EndsWith("invoices/draft", StringComparison.Ordinal)
            || path.EndsWith("/invoices", StringComparison.Ordinal)
        )
        {
            var wanted = body.ContainsKey("wanted") ? new JsonObject() : body;
            (wanted["by"], wanted["step"], wanted["value"]) = ("amount", null, One<string>(["1", "1", "1", "-1"]));
            if (body.ContainsKey("wanted"))
                body["wanted"] = wanted;
            if (body.ContainsKey("total"))
                (body["total"], body["supplied"], body["reason"]) = (of["one"]!.DeepClone(), "", "because");
        }
        if (path.EndsWith("/credit", StringComparison.Ordinal))
            body["reason"] = "because";
        if (path.EndsWith("/snags", StringComparison.Ordinal))
            (body["text"], body["place"]) = (One<string>(["a run beside the door", " "]), null);
        if (path.EndsWith("/note", StringComparison.Ordinal))
            (body["name"], body["day"], body["how"]) = ("Odo Fenn", of["today"]!.DeepClone(), "signed");
        if (path.EndsWith("/terms", StringComparison.Ordinal))
            body["terms"] = new JsonObject
            {
                ["retention"] = One<string>(["", "5", "5", "101"]),
                ["cap"] = "",
                ["capPercent"] = One<string>(["", "3"]),
                ["releases"] = One<string>(["50, 100", "", "50"]),
                ["earlyPercent"] = One<string>(["", "2"]),
                ["earlyDays"] = One<string>(["10", "x"]),
                ["interest"] = One<string>(["", "9"]),
            };
        if (path.EndsWith("/releases", StringComparison.Ordinal))
            body["amount"] = of["billed"]!["mayRelease"]!.DeepClone();
        if (path.EndsWith("invoice}/mails", StringComparison.Ordinal))
        {
            var message = Message();
            (message["words"], message["subject"], message["way"]) = ("It is attached.", "Invoice", "mail");
            (body["message"], body["reminder"]) = (message, null);
        }
        if (path.EndsWith("/payments", StringComparison.Ordinal))
            (body["amount"], body["day"], body["how"]) = (
                One<string>(["1.00", "0.25", "-0.25", "0"]),
                of["today"]!.DeepClone(),
                "by hand"
            );
        if (path.EndsWith("/payments", StringComparison.Ordinal) && body.ContainsKey("discount"))
            body["discount"] = "";
    }

    /// <summary>What is bought of it, as it should be for the most part.</summary>
    private void Bought(string path, JsonObject body, JsonObject of)
    {
        var (goods, today) = (of["buying"]!["goods"]![0]!["goods"]!, of["today"]!);
        if (path.EndsWith("/draft", StringComparison.Ordinal) || path.EndsWith("/orders", StringComparison.Ordinal))
        {
            var wanted = body.ContainsKey("wanted") ? new JsonObject() : body;
            (wanted["supplier"], wanted["delivery"]) = ("Ropewalk Trade Supply", "");
            wanted["lines"] = new JsonArray(
                new JsonObject
                {
                    ["goods"] = goods.DeepClone(),
                    ["pack"] = 0,
                    ["count"] = One<string>(["2", "2", "2", "-1", "x"]),
                    ["price"] = "5",
                }
            );
            if (body.ContainsKey("wanted"))
                (body["wanted"], body["total"], body["by"]) = (wanted, "10.00", "");
        }
        if (path.EndsWith("/receive", StringComparison.Ordinal))
        {
            body["lines"] = new JsonArray(
                new JsonObject
                {
                    ["line"] = 0,
                    ["count"] = "1",
                    ["paid"] = One<string>(["", "3.50", "-1"]),
                }
            );
            (body["day"], body["delivery"]) = (today.DeepClone(), One<string>(["", "12"]));
        }
        if (path.EndsWith("/close", StringComparison.Ordinal))
            body["reason"] = "because";
        if (path.EndsWith("/mails", StringComparison.Ordinal))
        {
            var message = Message();
            (message["words"], message["subject"], message["way"]) = ("It is attached.", "Order", "mail");
            body["message"] = message;
        }
        if (path.EndsWith("/moves", StringComparison.Ordinal))
        {
            var counted = path.StartsWith("/api/stock", StringComparison.Ordinal);
            var move = counted
                ? One<string>(["counted", "received"])
                : One<string>(["used", "received", "reserved", "released", "putBack"]);
            (body["move"], body["goods"], body["work"], body["place"]) = (move, goods.DeepClone(), null, null);
            (body["quantity"], body["day"]) = (One<string>(["0.25", "1", "5", "-1"]), today.DeepClone());
            (body["paid"], body["words"]) = (move == "received" ? "10" : "", One<string>(["", "because"]));
        }
    }

    /// <summary>What is planned of it, as it should be for the most part.</summary>
    private void Scheduled(string path, JsonObject body, JsonObject of)
    {
        var (schedule, today) = (of["schedule"]!, of["today"]!);
        var task = schedule["tasks"]!.AsArray().LastOrDefault(t => !(bool)t!["isBegun"]!);
        var crew = schedule["crews"]!.AsArray().FirstOrDefault()?["id"];
        if (body.ContainsKey("strip"))
            body["strip"] = new JsonObject
            {
                ["from"] = One<string>(["", "2026-11-30", "0001-01-01", "x"]),
                ["byCrew"] = Chance(50),
            };
        if (body.ContainsKey("task"))
            body["task"] = task?["id"]?.DeepClone() ?? Id();
        if (path.EndsWith("/lay-out", StringComparison.Ordinal))
            (body["from"], body["crews"]) = (
                today.DeepClone(),
                new JsonArray(
                    [
                        .. schedule["sections"]!
                            .AsArray()
                            .Select(s => new JsonObject
                            {
                                ["section"] = s!["name"]!.DeepClone(),
                                ["crew"] = crew?.DeepClone() ?? Id(),
                            }),
                    ]
                )
            );
        if (path.EndsWith("/move", StringComparison.Ordinal))
            (body["day"], body["by"]) = (
                One<string>(["", "2027-03-01", "9999-12-31", "x"]),
                One<int>([1, -1, 5, 5000])
            );
        if (path.EndsWith("/publish", StringComparison.Ordinal))
            body["version"] = schedule["version"]!.DeepClone();
        if (body.ContainsKey("typed"))
            body["typed"] = new JsonObject
            {
                ["name"] = One<string>(["Seal", "Seal", " "]),
                ["at"] = "",
                ["crew"] = crew?.DeepClone() ?? Id(),
                ["hours"] = One<string>(["4", "7.5", "x"]),
                ["day"] = today.DeepClone(),
                ["clock"] = "8:00",
                ["isPinned"] = Chance(30),
                ["links"] = new JsonArray(),
            };
    }

    private static JsonObject Message() =>
        new()
        {
            ["to"] = new JsonArray(new JsonObject { ["address"] = "ada@marsh.example", ["copy"] = false }),
            ["subject"] = "Proposal {number}",
            ["words"] = "It comes to {total}.",
        };

    private byte[] Bytes(string path)
    {
        var bytes = (
            path.EndsWith("/import", StringComparison.Ordinal) ? Imported()
            : path.EndsWith("-file", StringComparison.Ordinal) ? bookFile
            : path.EndsWith("/files", StringComparison.Ordinal) ? Picture
            : path.EndsWith("/bank/read", StringComparison.Ordinal)
                ? "Day,Amount,Payer,Words\n2026-12-01,5.00,Ida,thanks\n"u8.ToArray()
            : table
        ).ToArray();
        if (Chance(60))
            for (var i = random.Next(1, 6); i > 0 && bytes.Length > 0; i--)
                bytes[random.Next(bytes.Length)] = (byte)random.Next(256);
        return Chance(15) ? bytes[..random.Next(bytes.Length + 1)] : bytes;
    }

    /// <summary>A job file under an id of its own, with something taken out of it or spoiled now and then.</summary>
    private byte[] Imported()
    {
        var file = JsonNode.Parse(jobFile)!.AsObject();
        file["id"] = Id();
        if (Chance(50))
            Spoil(file);
        return Encoding.UTF8.GetBytes(file.ToJsonString());
    }

    /// <summary>What is saved as a whole, as it stands there now, with one thing changed: by reading before writing, as a browser does.</summary>
    private async Task AsItStands(string path, JsonObject body)
    {
        var list = path.StartsWith("/api/customers/", StringComparison.Ordinal);
        using var response = await http.GetAsync(
            list ? "/api/customers"
            : path.EndsWith("/plan", StringComparison.Ordinal) ? "/api/backups"
            : path
        );
        if (!response.IsSuccessStatusCode)
            return;
        var stands = await response.Content.ReadFromJsonAsync<JsonNode>();
        if (list)
            stands = stands!.AsArray().FirstOrDefault(c => path.EndsWith((string)c!["id"]!, StringComparison.Ordinal));
        stands = (stands as JsonObject)?["entry"] ?? (stands as JsonObject)?["plan"] ?? stands;
        if (stands is not JsonObject thing)
            return;
        var now = thing.DeepClone().AsObject();
        var (field, value) = One(now.ToArray());
        if (
            Chance(70)
            && pools.TryGetValue(field, out var pool)
            && One(pool) is var other
            && other.GetValueKind() == value?.GetValueKind()
        )
            now[field] = other.DeepClone();
        if (body.ContainsKey("entry"))
            (body["entry"], body["was"]) = (
                now,
                path.StartsWith("/api/book/", StringComparison.Ordinal)
                    ? thing["version"]?.DeepClone()
                    : thing.DeepClone()
            );
        else
            (body["now"], body["was"]) = (now, thing.DeepClone());
    }

    private static byte[] Raw(string text) => Encoding.UTF8.GetBytes(text);

    private JsonNode? Value(JsonObject schema, string name, int deep, string kind, string job)
    {
        if (Alternatives(schema) is { Length: > 0 } alternatives)
        {
            var wanted = Array.Find(alternatives, a => TypeOf(a) == kind) ?? One(alternatives);
            return Value(wanted, name, deep, kind, job);
        }
        if (schema["properties"] is JsonObject properties && deep < 8)
        {
            // Whole things are real ones where there are any.
            if (deep > 0 && Chance(70) && Real(name, schema) is { } real)
                return real;
            var required = (schema["required"] as JsonArray ?? []).Select(r => (string)r!).ToHashSet();
            var thing = new JsonObject();
            foreach (var (property, of) in properties)
                if (required.Contains(property) || Chance(60))
                    thing[property] = Value(Resolved(of!), property, deep + 1, kind, job);
            return thing;
        }
        if (schema["enum"] is JsonArray values)
            return One(values)?.DeepClone();
        if (schema["items"] is { } items)
            return new JsonArray(
                [
                    .. Enumerable
                        .Range(0, Chance(90) ? random.Next(1, 4) : random.Next(0, 60))
                        .Select(_ => Value(Resolved(items), name.TrimEnd('s'), deep + 1, kind, job)),
                ]
            );
        // A new id for what is made, a known one for what is named.
        if (name is "id" or "to" || (name == "place" && kind == "addPlace") || (name == "work" && kind == "addWork"))
            return Id();
        if (name is "client" or "base")
            return name == "base" ? random.Next(0, 3) : client.ToString();
        if (Chance(85) && Real(name, schema) is { } known)
            return known;
        return Plain(schema);
    }

    /// <summary>A value that the server has given under this name.</summary>
    private JsonNode? Real(string name, JsonObject schema)
    {
        var pool = name switch
        {
            "from" or "after" or "before" when pools.ContainsKey("place") => "place",
            "text" or "source" when Chance(50) => "line",
            _ => name,
        };
        if (!pools.TryGetValue(pool, out var known))
            return null;
        var value = One(known);
        var wants = schema["type"] is JsonArray several
            ? several.Select(t => (string)t!).ToArray()
            : [(string?)schema["type"] ?? ""];
        var fits = value.GetValueKind() switch
        {
            System.Text.Json.JsonValueKind.String => wants.Contains("string"),
            System.Text.Json.JsonValueKind.Number => wants.Contains("integer") || wants.Contains("number"),
            System.Text.Json.JsonValueKind.True or System.Text.Json.JsonValueKind.False => wants.Contains("boolean"),
            System.Text.Json.JsonValueKind.Object => wants.Contains("object"),
            _ => false,
        };
        return fits || wants is [""] ? value.DeepClone() : null;
    }

    private JsonNode? Plain(JsonObject schema)
    {
        var types = schema["type"] is JsonArray several
            ? several.Select(t => (string)t!).ToArray()
            : [(string?)schema["type"] ?? "string"];
        return One(types) switch
        {
            "null" => null,
            "integer" => random.Next(-2, 30),
            "number" => random.Next(-2, 30),
            "boolean" => Chance(50),
            "array" => new JsonArray(),
            "object" => new JsonObject(),
            _ => (string?)schema["format"] switch
            {
                "uuid" => Id(),
                "decimal" => (random.Next(0, 4000) / 100m).ToString(CultureInfo.InvariantCulture),
                _ => Chance(40) ? One(Hostile) : "Plain " + random.Next(100).ToString(CultureInfo.InvariantCulture),
            },
        };
    }

    /// <summary>Names in a command what the job really has, and gives it as seen what really stands there, as a browser would.</summary>
    private void Seen(JsonObject command, string job, bool whole)
    {
        if (!files.TryGetValue(job, out var file) || (!whole && Chance(12)))
            return;
        var type = (string?)command["type"] ?? "";
        JsonObject? Some(string list) => file[list] is JsonArray { Count: > 0 } things ? One(things)!.AsObject() : null;
        string IdOf(string list) => Some(list)?["id"]?.ToString() ?? Id();
        JsonArray Ids(string list) =>
            [.. Enumerable.Range(0, random.Next(1, 3)).Select(_ => IdOf(list)).Distinct().Select(id => (JsonNode)id)];
        foreach (
            var (name, list) in new[]
            {
                ("work", "work"),
                ("place", "places"),
                ("section", "sections"),
                ("item", "schedule"),
                ("from", "book"),
                ("to", "book"),
            }
        )
            if (command[name] is JsonValue && type is not ("addPlace" or "addWork"))
                command[name] = IdOf(list);
        foreach (
            var (name, list) in new[]
            {
                ("work", "work"),
                ("places", "places"),
                ("fromWork", "work"),
                ("fromPlaces", "places"),
                ("entries", "book"),
            }
        )
            if (
                command[name] is JsonArray
                && type is not ("addPlaces" or "clonePlaces" or "editPlaces" or "movePlaces")
            )
                command[name] = Ids(list);
        foreach (var name in new[] { "after", "before" })
            if (command.ContainsKey(name) && Chance(80))
                command[name] = null;
        // Of a thing with many fields that no command sets, one that a command does set is taken more often.
        void Set(JsonObject? thing, JsonObject at, string? often = null)
        {
            if (thing is null || thing.Count == 0)
                return;
            var (field, value) =
                often is not null && Chance(60) ? KeyValuePair.Create(often, thing[often]) : One(thing.ToArray());
            command["field"] = field;
            at["was"] = value?.DeepClone();
            at["now"] =
                Chance(60) && pools.TryGetValue(field, out var pool) ? One(pool).DeepClone() : value?.DeepClone();
        }
        switch (type)
        {
            case "setWork" or "setSection":
                var (one, kind) = type == "setWork" ? (Some("work"), "work") : (Some("sections"), "section");
                command[kind] = one?["id"]?.DeepClone();
                Set(one, command, type == "setSection" ? "name" : "crewNote");
                break;
            case "changeTasks":
                command["tasks"] = new JsonArray(
                    new JsonObject
                    {
                        ["was"] = null,
                        ["now"] = new JsonObject
                        {
                            ["id"] = Id(),
                            ["name"] = One<string>(["Seal", "Seal", ""]),
                            ["at"] = "",
                            ["crew"] = Id(),
                            ["hours"] = One<string>(["4", "4", "-1"]),
                            ["start"] = "2027-03-01T08:00:00",
                            ["rank"] = "1",
                            ["links"] = new JsonArray(),
                            ["work"] = new JsonArray(),
                        },
                    }
                );
                break;
            case "setPricing" or "setProposal" or "setCrew" or "setInfo":
                Set(file[char.ToLowerInvariant(type[3]) + type[4..]] as JsonObject, command);
                break;
            case "chooseBasis":
                command["was"] = file["pricing"]!["basis"]!.DeepClone();
                // By unit prices or charge rates, whatever work has none is refused from then on.
                command["now"] = Chance(90) ? One<string>(["markup", "targetMargin", "fixed"]) : "unitPrice";
                break;
            case "typePrice":
                command["field"] = One<string>(["profit", "targetMargin", "adjustment"]);
                command["was"] = file["pricing"]![(string)command["field"]!]!.DeepClone();
                command["now"] = random.Next(1, 60).ToString(CultureInfo.InvariantCulture);
                break;
            case "takePolicy":
                command["was"] = file["policy"]?["id"]?.DeepClone();
                command["policy"] = new JsonObject
                {
                    ["id"] = Id(),
                    ["name"] = "Policy",
                    ["terms"] = file["pricing"]!.DeepClone(),
                };
                break;
            case "fallToPolicy":
                command["field"] = One<string>(["profit", "overhead", "taxes"]);
                break;
            case "groupAlternate":
                command["alternate"] = Id();
                command["kind"] = One<string>(["add", "deduct", "deduct"]);
                break;
            case "renameAlternate" or "takeAlternate" or "ungroupAlternate":
                var offered = Some("alternates");
                command["alternate"] = offered?["id"]?.DeepClone() ?? IdOf("work");
                if (type == "renameAlternate")
                    command["was"] = offered?["name"]?.DeepClone() ?? "";
                if (type == "takeAlternate")
                    (command["was"], command["taken"]) = Chance(70) ? (false, true) : (true, false);
                break;
            case "addVariant":
                (command["variant"], command["base"]) = (Id(), Id());
                (command["name"], command["baseName"]) = ($"Variant {random.Next(1000)}", "First");
                break;
            case "renameVariant" or "removeVariant" or "takeVariant":
                var variant = Some("variants");
                command["variant"] = variant?["id"]?.DeepClone() ?? Id();
                if (type == "renameVariant")
                    command["was"] = variant?["name"]?.DeepClone() ?? "";
                if (type == "takeVariant")
                    command["was"] =
                        (file["variants"] as JsonArray)?.FirstOrDefault(v => (bool)v!["taken"]!)?["id"]?.DeepClone()
                        ?? Id();
                break;
            case "addChoice":
                var (first, second) = (Id(), Id());
                command["choice"] = new JsonObject
                {
                    ["id"] = Id(),
                    ["rank"] = "",
                    ["name"] = $"Choice {random.Next(1000)}",
                    ["work"] = IdOf("work"),
                    ["options"] = new JsonArray(
                        new JsonObject
                        {
                            ["id"] = first,
                            ["name"] = "One",
                            ["colour"] = "red",
                        },
                        new JsonObject
                        {
                            ["id"] = second,
                            ["name"] = "Two",
                            ["colour"] = One<string>(["blue", ""]),
                        }
                    ),
                    ["included"] = first,
                    ["taken"] = first,
                };
                break;
            case "setChoice" or "removeChoice":
                var choice = Some("choices");
                command["choice"] = choice?["id"]?.DeepClone() ?? Id();
                if (type == "setChoice")
                    Set(choice, command, "name");
                break;
            case "setOption":
                var among = Some("choices");
                var option = among is null ? null : One(among["options"]!.AsArray())!.AsObject();
                (command["choice"], command["option"]) = (
                    among?["id"]?.DeepClone() ?? Id(),
                    option?["id"]?.DeepClone() ?? Id()
                );
                (command["field"], command["was"], command["now"]) = (
                    "code",
                    option?["code"]?.DeepClone(),
                    $"C{random.Next(99)}"
                );
                break;
            case "takeChoice":
                var chosen = Some("choices");
                command["options"] = new JsonArray(
                    new JsonObject
                    {
                        ["choice"] = chosen?["id"]?.DeepClone() ?? Id(),
                        ["was"] = chosen?["taken"]?.DeepClone() ?? Id(),
                        ["now"] = chosen is null ? Id() : One(chosen["options"]!.AsArray())!["id"]!.DeepClone(),
                    }
                );
                break;
            case "addQuote":
                command["quote"] = new JsonObject
                {
                    ["id"] = Id(),
                    ["rank"] = "",
                    ["section"] = IdOf("sections"),
                    ["from"] = $"Firm {random.Next(1000)}",
                    ["amount"] = One<string>(["900", "0", "-1"]),
                    ["taken"] = false,
                };
                break;
            case "setQuote" or "removeQuote" or "takeQuote":
                var quote = Some("quotes");
                if (type == "takeQuote")
                    (command["section"], command["was"], command["now"]) = (
                        quote?["section"]?.DeepClone() ?? IdOf("sections"),
                        (file["quotes"] as JsonArray)
                            ?.FirstOrDefault(q =>
                                (bool)q!["taken"]! && (string?)q["section"] == (string?)quote!["section"]
                            )
                            ?["id"]?.DeepClone(),
                        Chance(70) ? quote?["id"]?.DeepClone() : null
                    );
                else
                    command["quote"] = quote?["id"]?.DeepClone() ?? Id();
                if (type == "setQuote")
                    Set(quote, command, "without");
                break;
            case "addBlock":
                command["block"] = new JsonObject
                {
                    ["id"] = Id(),
                    ["kind"] = One<string>(["words", "expect", "terms", "cover", "price", "pictures", "attachments"]),
                    ["rank"] = "",
                    ["title"] = One<string>(["More", "More", ""]),
                };
                break;
            case "setBlock" or "moveBlock" or "removeBlock" or "takeText":
                var ofProposal = Some("blocks");
                command["block"] = ofProposal?["id"]?.DeepClone() ?? Id();
                if (type == "setBlock")
                    Set(ofProposal, command, "title");
                if (type == "takeText" && Chance(60))
                    command["text"] = null;
                break;
            case "takePattern":
                command["pattern"] = new JsonObject
                {
                    ["id"] = Id(),
                    ["name"] = "Pattern",
                    ["trade"] = "",
                    ["terms"] = file["proposal"]!.DeepClone(),
                    ["blocks"] = new JsonArray(
                        new JsonObject
                        {
                            ["id"] = Id(),
                            ["kind"] = One<string>(["price", "letter"]),
                            ["rank"] = "",
                        },
                        new JsonObject
                        {
                            ["id"] = Id(),
                            ["kind"] = One<string>(["scope", "letter"]),
                            ["rank"] = "",
                        }
                    ),
                };
                break;
            case "setRound":
                Set(file["round"] as JsonObject ?? new JsonObject { ["rise"] = "0" }, command, "rise");
                break;
            case "addRhythm":
                command["rhythm"] = new JsonObject
                {
                    ["id"] = Id(),
                    ["rank"] = "",
                    ["name"] = $"Rhythm {random.Next(1000)}",
                    ["kind"] = One<string>(["times", "times", "workingDays", "event"]),
                    ["times"] = One<int>([52, 12, 4, 0]),
                    ["ownVisit"] = Chance(50),
                };
                break;
            case "setRhythm" or "takeFrequency" or "setVisit" or "removeRhythm":
                // What an event brings has no frequency.
                var rhythm =
                    type == "takeFrequency"
                        ? file["rhythms"]?.AsArray().LastOrDefault(r => (string?)r!["kind"] != "event")?.AsObject()
                        : Some("rhythms");
                command["rhythm"] = rhythm?["id"]?.DeepClone() ?? Id();
                if (type == "setRhythm")
                    Set(rhythm, command, "times");
                if (type == "takeFrequency")
                    command["was"] = new JsonObject
                    {
                        ["kind"] = rhythm?["kind"]?.DeepClone(),
                        ["times"] = rhythm?["times"]?.DeepClone(),
                    };
                if (type == "takeFrequency")
                    command["now"] = new JsonObject { ["kind"] = "times", ["times"] = One<int>([52, 26, 12, 1001]) };
                if (type == "setVisit")
                    command["was"] = new JsonObject
                    {
                        ["instead"] = rhythm?["instead"]?.DeepClone(),
                        ["ownVisit"] = rhythm?["ownVisit"]?.DeepClone(),
                    };
                if (type == "setVisit")
                    command["now"] = new JsonObject
                    {
                        ["instead"] = Chance(20) ? IdOf("rhythms") : null,
                        ["ownVisit"] = Chance(50),
                    };
                break;
            case "setSureness":
                command["was"] = file["sureness"]?.DeepClone();
                command["now"] = new JsonObject
                {
                    ["all"] = new JsonObject
                    {
                        ["hoursLow"] = One<string>(["-10", "0", "-91"]),
                        ["hoursHigh"] = One<string>(["20", "0", "400"]),
                        ["pricesLow"] = "-5",
                        ["pricesHigh"] = One<string>(["10", "-6"]),
                    },
                    ["shared"] = One<string>(["0", "50", "101"]),
                    ["seed"] = 1,
                };
                break;
            case "setPiece":
                var piece = One<string>(["section", "place", "work"]);
                command["kind"] = piece;
                command["piece"] = IdOf(piece == "work" ? "work" : piece + "s");
                (command["was"], command["now"]) = Chance(60) ? ("in", "out") : ("out", "in");
                break;
            case "setPlaces" or "setCells":
                var (at, of) = (new JsonObject(), Some(type == "setPlaces" ? "places" : "cells"));
                at["place"] = of?[type == "setPlaces" ? "id" : "place"]?.DeepClone();
                if (type == "setCells")
                    command["work"] = of?["work"]?.DeepClone();
                Set(type == "setPlaces" ? of : of?["cell"] as JsonObject, at, type == "setPlaces" ? "notes" : null);
                command["at"] = new JsonArray(at);
                break;
            case "remeasurePlace" or "setMeasure" or "setNote":
                var place = Some("places");
                command["place"] = place?["id"]?.DeepClone();
                command["was"] =
                    type == "remeasurePlace" ? place?["line"]?.DeepClone()
                    : type == "setNote" ? ""
                    : null;
                break;
            case "editPlaces" or "movePlaces" or "renameGroup":
                var (edited, field) = (
                    Some("places"),
                    type == "editPlaces" ? One<string>(["name", "finish", "notes"]) : "group"
                );
                if (type == "editPlaces")
                    command["field"] = One<string>(["height", "count", "height", "count", "name"]);
                if (type == "renameGroup")
                    command["was"] = edited?["group"]?.DeepClone();
                else
                    command["places"] = new JsonArray(
                        new JsonObject
                        {
                            ["place"] = edited?["id"]?.DeepClone(),
                            ["was"] = edited?[type == "movePlaces" ? "group" : "line"]?.DeepClone(),
                        }
                    );
                if (type == "editPlaces")
                    command["value"] = One<string>(["9", "2", "9", "2", field]);
                break;
            case "fillCells" or "copyCells" or "fallBack" or "pasteCells":
                var states = (file["cells"] as JsonArray ?? []).ToDictionary(
                    c => $"{c!["work"]}/{c["place"]}",
                    c =>
                        (string)c!["cell"]!["state"]! is var state && state == "included" ? 'i'
                        : state == "excluded" ? 'x'
                        : 'a'
                );
                var block =
                    from p in command["places"]!.AsArray()
                    from w in command["work"]!.AsArray()
                    select states.GetValueOrDefault($"{w}/{p}", '.');
                command["was"] = new string([.. block]);
                if (type == "pasteCells")
                    command["texts"] = new JsonArray(
                        [.. block.Select(_ => (JsonNode)One<string>(["x", "", "12", "yes", "o", "3.5"]))]
                    );
                break;
            case "joinOpenings":
                Join(command, file);
                break;
            case "setAside":
                (command["check"], command["was"]) = ($"noWork/{IdOf("places")}", "");
                break;
            case "setEntry":
                var entry = Some("book");
                (command["was"], command["entry"]) = (entry?.DeepClone(), entry?.DeepClone());
                if (command["entry"] is JsonObject changed)
                    changed["name"] = "Changed " + random.Next(9).ToString(CultureInfo.InvariantCulture);
                break;
            case "addSchedule":
                command["rows"] = new JsonArray(
                    new JsonObject
                    {
                        ["id"] = Id(),
                        ["number"] = "1.1",
                        ["wording"] = "Paint walls",
                        ["unit"] = One<string>(["m²", "ft²"]),
                        ["quantity"] = "120",
                    }
                );
                break;
            case "setScheduleItem":
                var item = Some("schedule");
                (command["item"], command["was"]) = (item?["id"]?.DeepClone(), item?["source"]?.DeepClone());
                // A source has to be of the kind that the row is counted in; none always is.
                command["source"] = One<string>(["", "", "netWallArea"]);
                break;
            case "setScheduleWork":
                var row = Some("schedule");
                (command["item"], command["was"]) = (row?["id"]?.DeepClone(), row?["work"]?.DeepClone());
                command["now"] = new JsonArray(
                    new JsonObject
                    {
                        ["work"] = IdOf("work"),
                        ["group"] = "",
                        ["place"] = random.Next(2) == 0 ? null : IdOf("places"),
                    }
                );
                break;
            case "addWork":
                command["entry"] = One(bookWork);
                // Answers are to the entry's own questions, and what goes with it is the Book's; places are the job's.
                if (whole)
                    (command["places"], command["answers"], command["with"]) = (
                        Ids("places"),
                        new JsonArray(),
                        new JsonArray()
                    );
                break;
            case "addPlaces":
                command["work"] = new JsonArray();
                command["places"] = new JsonArray(
                    new JsonObject
                    {
                        ["place"] = Id(),
                        ["line"] = One<string>(
                            ["Hall 12 x 10 x 8", "Shed 3.2 x 2.1 x 2.4; door 0.9 x 2", "Deck: area 30"]
                        ),
                        ["group"] = One(pools["group"]).DeepClone(),
                        ["finish"] = "",
                        ["notes"] = "",
                        ["typed"] = new JsonArray(),
                        ["work"] = new JsonArray(),
                    }
                );
                break;
            case "clonePlaces":
                command["places"] = new JsonArray(new JsonObject { ["from"] = IdOf("places"), ["to"] = Id() });
                (command["group"], command["groupWas"]) = (null, null);
                break;
            case "replaceProduct":
                var products = (file["book"] as JsonArray ?? [])
                    .Select(e => (string?)e!["product"])
                    .OfType<string>()
                    .ToArray();
                if (products.Length > 0)
                    (command["from"], command["to"]) = (One(products), One(bookProducts));
                break;
            case "takeFromBook":
                command["work"] = null;
                break;
            case "setUnits" or "setDeduction":
                command["was"] = file[type == "setUnits" ? "units" : "deduct"]?.DeepClone();
                if (type == "setDeduction")
                    command["rule"] = One<string>(["net", "gross", "vob", "nrm2", "over 10 ft2; 5 ft2; 3 ft"]);
                break;
            case "setPace" or "setConditions":
                command["was"] = file[type == "setPace" ? "pace" : "conditions"]?.DeepClone();
                break;
        }
    }

    /// <summary>Two rooms with doors of one size, where the job has such.</summary>
    private void Join(JsonObject command, JsonObject file)
    {
        var doors = (
            from place in file["places"] as JsonArray ?? []
            where (int)place!["count"]! == 1 && (string?)place["shape"]?["kind"] == "room"
            from at in (place["openings"] as JsonArray ?? []).Select((o, i) => (Opening: o!, Index: i))
            where (string?)at.Opening["kind"] == "door" && at.Opening["into"] is null
            select (Place: place, at.Index, Size: $"{at.Opening["width"]!["value"]} {at.Opening["height"]!["value"]}")
        ).ToArray();
        var pairs = (
            from one in doors
            from other in doors
            where one.Size == other.Size && one.Place != other.Place
            select (one, other)
        ).ToArray();
        if (pairs.Length == 0)
            return;
        static JsonObject Was(JsonNode place) =>
            new() { ["place"] = place["id"]!.DeepClone(), ["was"] = place["line"]!.DeepClone() };
        var (from, into) = One(pairs);
        (command["from"], command["of"]) = (Was(from.Place), from.Index);
        (command["into"], command["in"]) = (Was(into.Place), into.Index);
    }

    /// <summary>A job has changed: what stands in it now is looked at.</summary>
    public async Task Changed(string path)
    {
        if (files.Keys.FirstOrDefault(path.Contains) is { } job)
            files[job] = (await http.GetFromJsonAsync<JsonObject>($"/api/jobs/{job}/file"))!;
    }

    private string Spoiled(JsonNode? body, string text)
    {
        switch (random.Next(10))
        {
            case 0:
                return text[..random.Next(text.Length)];
            case 1:
                return text.Replace("\"id\"", "\"ID\"", StringComparison.Ordinal);
            case 2:
                return text.Replace('{', '[');
            case 3:
                // A name twice.
                return text.Length > 2 && text[0] == '{' ? "{\"id\":\"x\"," + text[1..] : text + text;
            case 4:
                return string.Concat(Enumerable.Repeat("[", 200)) + text;
            default:
                if (body is null)
                    return text;
                Spoil(body);
                return body.ToJsonString();
        }
    }

    /// <summary>Changes one thing somewhere within.</summary>
    private void Spoil(JsonNode body)
    {
        var all = new List<JsonNode>();
        void Walk(JsonNode? node)
        {
            if (node is JsonObject or JsonArray)
                all.Add(node);
            foreach (var inner in node is JsonObject o ? o.Select(p => p.Value) : node as JsonArray ?? [])
                Walk(inner);
        }
        Walk(body);
        switch (One(all))
        {
            case JsonObject { Count: > 0 } thing:
                var (name, was) = One([.. thing]);
                if (Chance(20))
                    thing.Remove(name);
                else if (Chance(15))
                    thing["more"] = 1;
                else
                    thing[name] = Other(was);
                break;
            case JsonArray { Count: > 0 } list:
                if (Chance(30))
                    list.RemoveAt(random.Next(list.Count));
                else if (Chance(30))
                    list.Add(One(list)?.DeepClone());
                else
                    list[random.Next(list.Count)] = Other(One(list));
                break;
        }
    }

    private JsonNode? Other(JsonNode? was) =>
        random.Next(10) switch
        {
            0 => null,
            1 => random.Next(),
            2 => -1,
            3 => 1e300,
            4 => true,
            5 => new JsonArray(was?.DeepClone()),
            6 => new JsonObject { ["id"] = was?.DeepClone() },
            7 => new string('x', random.Next(1, 20_000)),
            8 => Id(),
            _ => One(Hostile),
        };
}
