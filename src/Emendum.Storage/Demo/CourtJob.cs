using Emendum.Core.Jobs;
using Emendum.Core.Places;
using Emendum.Core.Quantities;
using Emendum.Core.Work;

namespace Emendum.Storage.Demo;

/// <summary>The made-up glasshouse court of the Hollin Botanic Trust, in metres: resin-bound paths on a base, brick paving, oiled handrails, glass washing.</summary>
public static class CourtJob
{
    /// <summary>The court, built by the same commands a person gives.</summary>
    public static Job Build(Guid id, Guid customer, string date)
    {
        var entries = StarterBook.Entries.ToDictionary(e => e.Id);
        var number = 5000;
        Guid Next() => StarterBook.Id(number++);
        var job = Job.Empty(id, new("Hollin Botanic Trust, glasshouse court", "Paths, paving, rails and glass", "2040", "Hollin Botanic Trust", "Hollin Lane, Port Ennis", customer, "Larkspur & Pell Finishing", "7 Ropewalk, Port Ennis", "USD", date), UnitSystem.Metres);
        void Do(Command command) => job = Commands.Apply(job, command, entry => entries.GetValueOrDefault(entry)).Job;
        Guid Place(string group, string line)
        {
            var place = Next();
            Do(new AddPlace(Next(), place, line, group, null));
            return place;
        }
        Guid Work(int entry)
        {
            var work = Next();
            Do(new AddWork(Next(), work, StarterBook.Id(entry), null));
            return work;
        }
        void Include(Guid work, params Guid[] places) => Do(new FillCells(Next(), [.. places.Select(p => new CellWas(work, p, null))], CellState.Included));

        var (loop, palm, fern) = (Place("Court", "Loop path site 31 x 2"), Place("Court", "Palm path site 24 x 1.8"), Place("Court", "Fern walk site 15 x 1.6"));
        var terrace = Place("Court", "Terrace site 12 x 7.5");
        var rails = Place("Court", "Handrails run 46");
        var glass = Place("Glasshouse", "South glass face 28 x 4.2");
        var baseLayers = Work(3202);
        var path = Work(3201);
        var paving = Work(3203);
        var oil = Work(3104);
        var wash = Work(4202);
        Include(baseLayers, loop, palm, fern);
        Include(path, loop, palm, fern);
        Include(paving, terrace);
        Include(oil, rails);
        Include(wash, glass);
        var waits = JobJsonNode(new[] { baseLayers });
        Do(new SetWork(Next(), path, "waitsFor", JobJsonNode(Array.Empty<Guid>()), waits));
        Do(new SetWork(Next(), path, "difficulty", JobJsonNode(""), JobJsonNode("curved, stepped")));
        Do(new SetConditions(Next(), [], [StarterBook.Id(4401)]));
        Do(new SetPricing(Next(), "setUp", null, JobJsonNode(StarterBook.Id(3421).ToString())));
        return job;
    }

    private static System.Text.Json.Nodes.JsonNode? JobJsonNode<T>(T value) => System.Text.Json.JsonSerializer.SerializeToNode(value, JobJson.Options);
}
