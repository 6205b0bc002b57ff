using Emendum.Core.Quantities;

namespace Emendum.Core.Jobs;

/// <summary>Whom a job is for, as its documents and exports copy it. The job itself has only the id (architecture decision 35).</summary>
/// <param name="Id">The customer's.</param>
/// <param name="Name">Name.</param>
/// <param name="Address">Address.</param>
public sealed record Party(Guid Id, string Name, string Address)
{
    /// <summary>Nobody yet.</summary>
    public static readonly Party None = new(Guid.Empty, "", "");

    /// <summary>The id of a customer of whom an older version knew nothing but name and address.</summary>
    public static Guid IdOf(string name, string address) => DerivedId.Of($"customer/{name}\n{address}");
}
