using System.Text.RegularExpressions;
using ArchUnitNET.Domain;
using ArchUnitNET.Loader;
using Emendum.Core.Jobs;
using Xunit;
using static ArchUnitNET.Fluent.ArchRuleDefinition;

namespace Emendum.Web.Tests;

/// <summary>Dependencies point one way: Web → Documents, Storage → Core.</summary>
public partial class ArchitectureTests
{
    private static readonly System.Reflection.Assembly[] Layers =
    [
        typeof(Core.Jobs.Job).Assembly,
        typeof(Storage.Database).Assembly,
        typeof(Documents.ProposalPdf).Assembly,
        typeof(Refusals).Assembly,
    ];
    private static readonly Architecture All = new ArchLoader().LoadAssemblies(Layers).Build();

    private static string Root()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root.FullName, "Emendum.slnx")))
            root = root.Parent!;
        return root.FullName;
    }

    [Theory]
    [InlineData(0, new[] { 1, 2, 3 })]
    [InlineData(1, new[] { 2, 3 })]
    [InlineData(2, new[] { 1, 3 })]
    public void A_layer_knows_nothing_of_those_above_or_beside_it(int layer, int[] others)
    {
        foreach (var other in others)
        {
            var rule = Types()
                .That()
                .ResideInAssembly(Layers[layer])
                .Should()
                .NotDependOnAny(Types().That().ResideInAssembly(Layers[other]));
            Assert.True(
                rule.HasNoViolations(All),
                $"{Layers[layer].GetName().Name} depends on {Layers[other].GetName().Name}"
            );
        }
    }

    /// <summary>The order inside the core: each knows itself and those before it. The last three look at all before them, and nobody looks at them.</summary>
    private static readonly string[] Order =
    [
        "Quantities",
        "Figures",
        "Json",
        "Places",
        "Book",
        "Work",
        "Jobs",
        "Cutting",
        "Reckoning",
        "Pricing",
        "Proposals",
        "Delivery",
        "Drawings",
        "Checks",
        "Reports",
    ];

    [Fact]
    public void Inside_the_core_nothing_knows_what_comes_after_it()
    {
        static int At(IType type) =>
            // Refusals and plain text stand beside the quantities, under the core's own name.
            type.Namespace.FullName == "Emendum.Core"
                ? 0
                : Array.IndexOf(Order, type.Namespace.FullName.Split('.').ElementAtOrDefault(2));
        var core = All
            .Types.Where(t =>
                t.Assembly.Name.StartsWith("Emendum.Core,", StringComparison.Ordinal)
                || t.Assembly.Name == "Emendum.Core"
            )
            .Where(t => t.Namespace.FullName.StartsWith("Emendum.Core", StringComparison.Ordinal))
            .ToList();
        Assert.InRange(core.Count, 100, 10_000);
        Assert.All(core, type => Assert.True(At(type) >= 0, $"{type.FullName} stands in no part of the order."));
        var wrong =
            from type in core
            from dependency in type.Dependencies
            let target = dependency.Target
            where target.Namespace?.FullName.StartsWith("Emendum.Core", StringComparison.Ordinal) == true
            where At(target) > At(type) || (At(target) >= Order.Length - 3 && At(target) != At(type))
            select $"{type.FullName} knows {target.FullName}";
        Assert.True(!wrong.Any(), string.Join("\n", wrong.Distinct().Order(StringComparer.Ordinal)));
    }

    [Fact]
    public void The_core_uses_only_the_base_library_and_neither_clock_nor_files()
    {
        Assert.All(
            Layers[0].GetReferencedAssemblies(),
            name =>
                // A hash is a pure function; what makes chance is forbidden below.
                Assert.Matches(
                    @"^System\.(Runtime|Collections|Linq|Text|Memory|ObjectModel|Private|Console|Security\.Cryptography$)",
                    name.Name
                )
        );
        foreach (
            var file in Directory
                .GetFiles(Path.Combine(Root(), "src/Emendum.Core"), "*.cs", SearchOption.AllDirectories)
                .Where(f => !f.Contains("/obj/", StringComparison.Ordinal))
        )
            Assert.DoesNotMatch(Forbidden(), File.ReadAllText(file));
        Assert.Matches(Forbidden(), "var now = DateTime.UtcNow;");
    }

    [GeneratedRegex(
        @"\b(DateTime\.(Utc)?Now|File\.(Read|Write|Open)|new Random|Guid\.(New|Create)|RandomNumberGenerator|HttpClient|Environment\.)"
    )]
    private static partial Regex Forbidden();

    [Fact]
    public async Task The_API_description_that_the_client_is_built_from_is_not_stale()
    {
        using var folder = new TemporaryFolder();
        using var server = Server.Start(folder.Path);
        static string Plain(string json) => System.Text.Json.Nodes.JsonNode.Parse(json)!.ToJsonString();
        Assert.Equal(
            Plain(File.ReadAllText(Path.Combine(Root(), "client/openapi.json"))),
            Plain(await server.Http.GetStringAsync("/api/openapi.json"))
        );
    }

    [Fact]
    public void No_file_names_a_package_registry()
    {
        var host = new Regex("https?://[a-z.]*(npm" + "js|nu" + "get)\\.[a-z]+", RegexOptions.IgnoreCase);
        foreach (
            var file in new[] { "client/package-lock.json", "client/.npmrc", "Directory.Packages.props", "README.md" }
                .Select(f => Path.Combine(Root(), f))
                .Where(File.Exists)
        )
            Assert.DoesNotMatch(host, File.ReadAllText(file));
    }
}
