using Emendum.Core.Delivery;
using Emendum.Core.Quantities;
using Emendum.Web.Jobs;

namespace Emendum.Web.Deliver;

/// <summary>Something in which the job differs from what was agreed, and that can be changed by itself.</summary>
/// <param name="Id">It, as a change order asks for it.</param>
/// <param name="Kind">What a change order does to it.</param>
/// <param name="Name">The work, or works.</param>
/// <param name="At">Where.</param>
/// <param name="Says">How it differs.</param>
/// <param name="Lines">How many lines it touches.</param>
/// <param name="Sent">Number of a change order that touches it, was sent and waits for an answer; empty for none.</param>
public sealed record ChangePieceView(
    string Id,
    ChangeKind Kind,
    string Name,
    string At,
    string Says,
    int Lines,
    string Sent
);

/// <summary>Change orders of a job.</summary>
/// <param name="Differs">In what the job differs from what was agreed.</param>
/// <param name="Stops">Why no change order can be made; empty where one can.</param>
/// <param name="Next">Number that the next takes when it is sent.</param>
/// <param name="Changes">Those that were sent, the latest first.</param>
/// <param name="Sums">The contract sum: as signed, each change that was accepted, and what it is by now.</param>
/// <param name="Currency">ISO 4217.</param>
/// <param name="Steps">Steps of the payment plan that are not billed, by their number from 0.</param>
/// <param name="Until">The day until which a change order that is sent today holds, unless somebody says otherwise, like 2027-01-31.</param>
/// <param name="Outside">Whether people outside can open a page: links can be made.</param>
public sealed record ChangesView(
    IReadOnlyList<ChangePieceView> Differs,
    string Stops,
    int Next,
    IReadOnlyList<RevisionView> Changes,
    IReadOnlyList<MoneyRow> Sums,
    string Currency,
    IReadOnlyList<ChangeStepView> Steps,
    string Until,
    bool Outside
);

/// <summary>A step of the payment plan that can bill a change, too.</summary>
/// <param name="Number">From 0.</param>
/// <param name="When">When it is paid.</param>
public sealed record ChangeStepView(int Number, string When);

/// <summary>A line of a change order that is made.</summary>
/// <param name="Kind">What happens to it.</param>
/// <param name="Name">Section and name of the work.</param>
/// <param name="At">Where.</param>
/// <param name="Says">How it differs.</param>
/// <param name="Credit">What is taken off; empty for nothing.</param>
/// <param name="Charge">What is added; empty for nothing.</param>
/// <param name="Amount">The two together.</param>
public sealed record ChangedLineView(
    ChangeKind Kind,
    string Name,
    string At,
    string Says,
    string Credit,
    string Charge,
    string Amount
);

/// <summary>Goods that were ordered and are not needed any more with a change.</summary>
/// <param name="Key">By which a change order asks for them.</param>
/// <param name="Name">What.</param>
/// <param name="Amount">How much.</param>
/// <param name="Cost">At what they cost us.</param>
/// <param name="Keeps">Whether they stay with the customer.</param>
public sealed record LeftGoodsView(string Key, string Name, string Amount, string Cost, bool Keeps);

/// <summary>What a change order would come to.</summary>
/// <param name="Lines">Its lines.</param>
/// <param name="Steps">What moves its sum beside them.</param>
/// <param name="Goods">Goods that were ordered for what is dropped.</param>
/// <param name="Net">Before tax.</param>
/// <param name="Tax">Its own tax.</param>
/// <param name="Total">With tax.</param>
/// <param name="Hours">Labour hours that it adds, or takes off.</param>
/// <param name="Before">The contract sum before it.</param>
/// <param name="After">The contract sum after it.</param>
/// <param name="Least">Whether the job's least charge holds some of what is dropped; a person may lift that (M15).</param>
/// <param name="OverBilled">What is to be done since more was billed than the contract sum bears then; empty where it is not (M21).</param>
/// <param name="Message">The mail that would bring it.</param>
public sealed record ChangeDraft(
    IReadOnlyList<ChangedLineView> Lines,
    IReadOnlyList<MoneyRow> Steps,
    IReadOnlyList<LeftGoodsView> Goods,
    string Net,
    string Tax,
    string Total,
    string Hours,
    string Before,
    string After,
    bool Least,
    string OverBilled,
    PaperMessage Message
)
{
    internal static ChangeDraft Of(
        ChangeOrder change,
        AgreedContract contract,
        IReadOnlyList<LeftGoodsView> goods,
        string overBilled,
        PaperMessage message
    )
    {
        string Money(decimal amount) => Shown.Money(amount, contract.Places);
        string Moved(decimal amount) => amount == 0 ? "" : Shown.Moved(amount, contract.Places);
        var before = contract.Contract.Sum.Sum;
        return new(
            [
                .. change.Lines.Select(l => new ChangedLineView(
                    l.Kind,
                    l.Name,
                    l.At,
                    l.Says,
                    Moved(l.Credit),
                    Moved(l.Charge),
                    Shown.Moved(l.Amount, contract.Places)
                )),
            ],
            [.. change.Steps.Select(s => new MoneyRow(s.Label, "", Shown.Moved(s.Amount, contract.Places)))],
            goods,
            Shown.Moved(change.Net, contract.Places),
            Shown.Moved(change.Tax, contract.Places),
            Shown.Moved(change.Total, contract.Places),
            Shown.Moved(decimal.Round(change.Hours, 1), 1),
            Money(before),
            Money(before + change.Net),
            change.Steps.Any(s => s.Label == ChangeMaking.LeastHolds),
            overBilled,
            message
        );
    }
}
