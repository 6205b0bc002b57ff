namespace Emendum.Web.Outside;

/// <summary>Where people outside reach the pages of customers and crews; none where the program was started without a door to the outside.</summary>
public sealed class OutsideAddress
{
    private string? address;

    /// <summary>Whether there is one: links can be made.</summary>
    public bool IsThere => address is not null;

    /// <summary>Says where: <c>https://proposals.example</c>.</summary>
    public void Set(string at) => address = at.TrimEnd('/');

    /// <summary>The address of the customer's page that a token opens.</summary>
    public string Of(string token) => Of(CustomerEndpoints.Path, token);

    /// <summary>The address of the crew's page that a token opens.</summary>
    public string OfCrew(string token) => Of(CrewEndpoints.Path, token);

    /// <summary>The address of the calendar that a token opens.</summary>
    public string OfCalendar(string token) => Of(CalendarEndpoints.Path, token);

    private string Of(string path, string token) =>
        IsThere
            ? $"{address}{path}/{token}"
            : throw Core.RefusedException.Of(
                "link",
                "Nobody outside can open a page: the program was started without --public."
            );
}
