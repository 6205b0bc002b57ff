using Emendum.Core.Book;
using Emendum.Core.Figures;
using Emendum.Core.Work;

namespace Emendum.Core.Reckoning;

/// <summary>Hours of each role at its loaded cost.</summary>
internal sealed class LabourCosts : KindCosts
{
    private readonly OrderedDictionary<Guid, (LabourRole Role, Sum Hours)> roles = [];

    /// <summary>Hours of all roles so far.</summary>
    public Val Hours => Sum.Of(roles.Values.Select(r => r.Hours.Total));

    /// <inheritdoc/>
    public override Sum SumOf(CompiledItem.Part part) => SumOf((LabourRole)part.Entry);

    /// <summary>Where the hours of a role add up.</summary>
    public Sum SumOf(LabourRole role)
    {
        if (!roles.TryGetValue(role.Id, out var of))
            roles.Add(role.Id, of = (role, new()));
        return of.Hours;
    }

    /// <inheritdoc/>
    public override void End(CostsDraft costs, Trace trace)
    {
        foreach (var (role, hours) in roles.Values)
            costs.Roles.Add(Of(role, hours.Total, trace));
    }

    /// <inheritdoc/>
    public override void Share(LineShares lines)
    {
        var loaded = lines.Costs.Roles.ToDictionary(
            r => r.Role.Id,
            r => lines.Rules.Hour is { } hour ? hour(r) : r.LoadedCost
        );
        foreach (var (line, part, amount) in lines.Of(ComponentKind.Labour))
            lines.Add(line, part, amount * loaded[part.Entry.Id]);
        foreach (var (item, part, amount) in lines.Once(ComponentKind.Labour))
            lines.AddByHours(item, CostClass.Labour, amount * loaded[part.Entry.Id]);
    }

    /// <summary>Percent of an hour's money with premiums: each lifts its share of the hours by what its multiplier is above one.</summary>
    internal static Val Lift(LabourRole role, IEnumerable<Premium> premiums, Trace trace)
    {
        Val lift = 100m;
        foreach (var premium in premiums)
            lift +=
                trace.Book(premium.SharePercent, "%", premium.Name + ", share of hours", role.Id)
                * (trace.Book(premium.Multiplier, "", premium.Name, role.Id) - 1m);
        return lift;
    }

    /// <summary>Loaded cost = wage · (1 + Σ%) + Σ per hour, with premiums on their share of the hours (estimating model §3).</summary>
    private static RoleCost Of(LabourRole role, Val hours, Trace trace)
    {
        FigurePath Path(string leaf) => new("roles", role.Id, leaf);
        var total = trace.Total(hours, "h", trace.On ? $"{role.Name}: hours" : "", Path("hours"));
        Val wage = trace.Book(role.Wage, "per h", "wage", role.Id),
            percent = 100m,
            perHour = 0m,
            fixedPercent = 0m,
            fixedPerHour = 0m;
        foreach (var item in role.Burden)
        {
            var follows = item.FollowsPremiums || role.Premiums.IsEmpty;
            if (item.Percent is { } p)
            {
                if (follows)
                    percent += trace.Book(p, "%", item.Name, role.Id);
                else
                    fixedPercent += trace.Book(p, "%", item.Name, role.Id);
            }
            if (item.PerHour is not { } h)
                continue;
            if (follows)
                perHour += trace.Book(h, "per h", item.Name, role.Id);
            else
                fixedPerHour += trace.Book(h, "per h", item.Name, role.Id);
        }
        var loaded = wage * percent / 100m + perHour;
        if (!role.Premiums.IsEmpty)
        {
            loaded = loaded * Lift(role, role.Premiums, trace) / 100m;
            if (fixedPercent.V != 0)
                loaded += wage * fixedPercent / 100m;
            if (fixedPerHour.V != 0)
                loaded += fixedPerHour;
        }
        var cost = trace.Total(loaded, "per h", trace.On ? $"{role.Name}: loaded cost" : "", Path("loadedCost"));
        return new(
            role,
            total,
            cost,
            trace.Total(total * cost, "", trace.On ? $"{role.Name}: cost" : "", Path("cost"))
        );
    }
}
