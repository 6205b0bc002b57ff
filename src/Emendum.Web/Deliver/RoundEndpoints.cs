namespace Emendum.Web.Deliver;

/// <summary>What is asked of the visits of a round, and said of them.</summary>
public static class RoundEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapVisits(this IEndpointRouteBuilder deliver)
    {
        var visits = deliver.MapGroup("/visits");
        visits.MapGet("/", (Guid id, Rounds rounds) => rounds.View(id));
        visits.MapPost("/", (Guid id, SayOfVisits say, Rounds rounds) => rounds.Say(id, say));
    }
}
