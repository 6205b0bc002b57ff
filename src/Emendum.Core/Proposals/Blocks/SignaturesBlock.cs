namespace Emendum.Core.Proposals;

/// <summary>Where both sign.</summary>
internal static class SignaturesBlock
{
    public static IEnumerable<Element> Of(Writing writing) =>
        [new Signature(writing.Party.Name, writing.Job.Info.Firm)];
}
