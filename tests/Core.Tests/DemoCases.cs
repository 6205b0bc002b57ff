using Emendum.Core.Jobs;
using Emendum.Core.Work;
using Emendum.Storage.Demo;
using Xunit;

namespace Emendum.Core.Tests;

/// <summary>The demo jobs by name, each as it is and under other terms: what holds of every job is tried on them.</summary>
public static class DemoCases
{
    /// <summary>Names, and whether under other terms.</summary>
    public static TheoryData<string, bool> All
    {
        get
        {
            var all = new TheoryData<string, bool>();
            foreach (var name in new[] { "library", "clinic", "pottery", "court" })
            {
                all.Add(name, false);
                all.Add(name, true);
            }
            return all;
        }
    }

    internal static Job Of(string name, bool other)
    {
        var job = DemoJobs.Fixed().Single(j => j.Info.Name.Contains(name, StringComparison.OrdinalIgnoreCase));
        return !other
            ? job
            : job with
            {
                Pricing = job.Pricing with
                {
                    Basis = job.Pricing.Basis == PriceBasis.Markup ? PriceBasis.TargetMargin : PriceBasis.Markup,
                    MaterialCost =
                        job.Pricing.MaterialCost == MaterialCost.Need ? MaterialCost.Purchase : MaterialCost.Need,
                },
            };
    }
}
