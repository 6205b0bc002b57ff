using System.Collections.Immutable;
using Emendum.Core.Proposals;

namespace Emendum.Web.Deliver;

/// <summary>What a change order is to hold.</summary>
/// <param name="Title">What it is about.</param>
/// <param name="Pieces">Which of what differs.</param>
/// <param name="Goods">Goods that cannot go back, by their keys.</param>
/// <param name="BelowLeast">Whether it may take the contract sum below the job's least charge (M15).</param>
/// <param name="TodaysBook">Whether added work is priced at the job's Book as it stands (M17).</param>
/// <param name="WithStep">Number, from 0, of the step of the payment plan that bills it, too; null for none.</param>
public sealed record ChangeWanted(
    string Title,
    ImmutableArray<string> Pieces,
    ImmutableArray<string> Goods,
    bool BelowLeast,
    bool TodaysBook,
    int? WithStep
);

/// <summary>Sends a change order.</summary>
/// <param name="Id">Its id; the same again is done once.</param>
/// <param name="Fact">Id of the fact of its sending.</param>
/// <param name="Wanted">What it holds.</param>
/// <param name="Total">What it was seen to come to, with tax, as it was read.</param>
/// <param name="Words">What the firm says about it; empty for nothing.</param>
/// <param name="Until">The last day on which it can be accepted, like 2027-01-31; empty for no end.</param>
/// <param name="How">How it goes out where it goes by hand.</param>
/// <param name="Message">The mail that brings it; null where it goes by hand.</param>
public sealed record SendChange(
    Guid Id,
    Guid Fact,
    ChangeWanted Wanted,
    string Total,
    string Words,
    string Until,
    string How,
    Message? Message
);

/// <summary>Change orders: what differs, what one would come to, sent. What happens to one afterwards is recorded like that of any revision.</summary>
public static class ChangeEndpoints
{
    /// <summary>Maps them.</summary>
    public static void MapChanges(this IEndpointRouteBuilder deliver)
    {
        var changes = deliver.MapGroup("/changes");
        changes.MapGet("/", (Guid id, ChangeOrders orders) => orders.View(id));
        changes.MapPost("/draft", (Guid id, ChangeWanted wanted, ChangeOrders orders) => orders.Draft(id, wanted));
        changes.MapPost("/", (Guid id, SendChange send, ChangeOrders orders) => orders.Send(id, send));
    }
}
