using Emendum.Core.Delivery;
using Emendum.Core.Figures;
using Emendum.Core.Jobs;
using Emendum.Core.Pricing;
using Emendum.Core.Proposals;
using Emendum.Core.Reports;
using Emendum.Storage;
using Emendum.Storage.Demo;
using Emendum.Web.Deliver;
using Emendum.Web.Jobs;
using Emendum.Web.Outside;

namespace Emendum.Web;

/// <summary>
/// What became of the proposals of the demo's jobs, recorded by the same ways as if it had happened on those days: one was seen, one has a question, one was accepted with choices, one round is running, one holds no longer, and of one the next
/// revision is being written.
/// </summary>
internal sealed class DemoProposals(Database database, FileStore files, FirmDay firm)
{
    private const string Nora = "Nora Pell",
        Trustee = "Odo Fenn",
        Desk = "Quayside Veterinary Clinic";

    private readonly RevisionStore revisions = new(database);
    private readonly CustomerStore customers = new(database);
    private readonly Brand brand = new SettingStore(database).Brand();
    private readonly JobStore jobs = new(database);
    private readonly Pictures pictures = new(files, TimeProvider.System);

    /// <summary>A moment of a day that is past: so many days ago, at an hour of the firm's clock.</summary>
    private DateTime Ago(int days, int hour, int minute) =>
        firm.At(firm.Today.AddDays(-days), new TimeOnly(hour, minute));

    /// <summary>Records all of it, where it is not there yet.</summary>
    public void Record()
    {
        if (Sends(DemoJobs.Showroom, "Ida Marrow", Ago(44, 16, 40)) is { } showroom)
            showroom.Sees(Ago(43, 9, 15));
        if (Sends(DemoJobs.Gallery, Trustee, Ago(12, 11, 5)) is { } gallery)
            Accepts(gallery);
        if (
            Sends(
                DemoJobs.Court,
                "the Trust's garden office",
                Ago(9, 10, 20),
                CourtJob.AsFirstSent(DemoJobs.Court, StarterBook.Id(901), FirmDay.Write(firm.Today.AddDays(-9)))
            ) is
            { } court
        )
            court.Sees(Ago(8, 8, 50));
        if (Sends(DemoJobs.Round, Desk, Ago(110, 9, 10)) is { } round)
            Runs(round);
        if (Sends(DemoJobs.Clinic, Desk, Ago(2, 15, 30)) is { } clinic)
            clinic.Sees(Ago(1, 8, 25));
    }

    /// <summary>Sends a job as it stands, or as it stood then; null where something was sent of it already.</summary>
    private Sent? Sends(Guid job, string to, DateTime at, Job? asItStood = null)
    {
        if (!jobs.Has(job) || !revisions.Life(job).Revisions.IsEmpty)
            return null;
        var estimate = Estimate.Of(asItStood ?? jobs.Open(job)!.Job, Trace.Silent);
        var revision = Guid.CreateVersion7();
        var link = new Link(Guid.CreateVersion7(), revision, to, true, at, null);
        var party = customers.Party(estimate.Job.Info.Customer);
        var document = Proposal.Of(estimate, party, brand, Trace.Silent, RevisionStart.LettersOf(1));
        var frozen = RevisionEndpoints
            .Freeze(revision, 1, 0, estimate, document, party, brand, files, pictures, at)
            .GetAwaiter()
            .GetResult();
        revisions.Send(
            frozen,
            RevisionEndpoints.SentBy(Guid.CreateVersion7(), frozen, at, JobEndpoints.Owner, $"a link for {to}", ""),
            // What opens it nobody knows: a new one is made for whoever wants to look.
            new([new(link, Token.HashOf(Token.New()))], [])
        );
        return new(this, job, revision, link);
    }

    /// <summary>The gallery's trustee looks, chooses twice, asks, has an answer and signs; the firm signs too.</summary>
    private void Accepts(Sent gallery)
    {
        gallery.Sees(Ago(12, 19, 30));
        var signings = new Signings(
            revisions,
            new AcceptanceStore(database),
            new FrozenRevisions(revisions),
            files,
            pictures,
            firm,
            new Then(Ago(9, 18, 20))
        );
        var frozen = signings.Frozen(gallery.Job, gallery.Revision)!;
        var job = JobFile.Read(frozen.Revision.JobFile, out _);
        (Guid? Choice, Guid Of, DateTime At)[] picks =
        [
            (job.Choices[0].Id, job.Choices[0].Options[1].Id, Ago(11, 20, 2)),
            (null, job.Alternates[0].Id, Ago(11, 20, 6)),
        ];
        foreach (var (choice, of, at) in picks)
        {
            var selection = revisions.Selected(gallery.Revision);
            revisions.Choose(
                gallery.Job,
                gallery.By(FactKind.Chosen, at, ""),
                selection.Version,
                selection.With(choice, of, taken: true),
                Day(at)
            );
        }
        var asked = gallery.Asks(Ago(11, 20, 10), "Is the moss as dark as the piece on your desk?");
        gallery.Answers(Ago(10, 8, 35), asked, "A little lighter. We leave a tile with the desk tomorrow.");
        var statement = frozen.With(revisions.Selected(gallery.Revision), out _).Statement;
        var accepted = signings.Accept(
            gallery.Job,
            frozen,
            new(
                Guid.CreateVersion7(),
                statement.Revision,
                statement.Selection,
                statement.Total,
                Trustee,
                "",
                Declares: true
            ),
            Guid.CreateVersion7(),
            gallery.Link
        );
        signings.Sign(accepted, gallery.Revision, Guid.CreateVersion7(), byFirm: true, Nora, "");
        Works(gallery, signings);
    }

    /// <summary>The gallery is half delivered: two crew leads tick and write their hours on their own pages.</summary>
    private void Works(Sent gallery, Signings signings)
    {
        var (links, sites) = (new WorkOrderStore(database), new SiteStore(database));
        var works = new WorkOrders(links, revisions, signings, firm, new Then(Ago(9, 18, 20)));
        var accepted = works.Of(gallery.Job)!;
        var order = accepted.Order;
        CrewLink Link(string crew, params string[] sections)
        {
            var link = new CrewLink(Guid.CreateVersion7(), crew, [.. sections], Ago(7, 8, 0), null);
            links.Add(gallery.Job, new(link, Token.HashOf(Token.New())));
            return link;
        }
        var (idris, wyn) = (Link("Idris"), Link("Wyn", "Ceilings", "Walls"));
        void Did(
            CrewLink who,
            int days,
            string section,
            string place,
            decimal hours,
            decimal percent,
            string words = ""
        )
        {
            var (line, at) = (order.Lines.First(l => l.Section == section && l.At == place), Ago(days, 16, 10));
            sites.Record(
                gallery.Job,
                order,
                [new DoneFact(Guid.CreateVersion7(), line.Work, line.Place, percent, at, who.For) { Link = who.Id }]
            );
            sites.Record(
                gallery.Job,
                order,
                new HoursFact(
                    Guid.CreateVersion7(),
                    HoursFor.Work,
                    line.Work,
                    line.Place,
                    who.For,
                    Day(at),
                    hours,
                    words,
                    at,
                    who.For
                )
                {
                    Link = who.Id,
                },
                firm.Today
            );
        }
        Did(wyn, 6, "Ceilings", "Reading gallery", 4.5m, 100);
        Did(wyn, 6, "Ceilings", "Map alcove", 1m, 100);
        Did(wyn, 5, "Walls", "Reading gallery", 7.5m, 90, "the gallery rail was wet until noon");
        Did(wyn, 4, "Walls", "Reading gallery", 1.75m, 100);
        Did(wyn, 4, "Walls", "Map alcove", 4.25m, 100);
        Did(idris, 2, "Woodwork", "Reading gallery", 2.5m, 100);
        Did(idris, 1, "Woodwork", "Map alcove", 1m, 75);
        sites.Record(
            gallery.Job,
            order,
            new HoursFact(
                Guid.CreateVersion7(),
                HoursFor.SetUp,
                null,
                null,
                "Idris",
                Day(Ago(2, 7, 30)),
                1.5m,
                "boards brought up by the back stair",
                Ago(2, 16, 15),
                "Idris"
            )
            {
                Link = idris.Id,
            },
            firm.Today
        );
        new DemoBuying(database, accepted, gallery.Job, Ago, Day).Write();
        new DemoSchedule(database, works.Agreed(gallery.Job), firm).Write(Day(Ago(6, 8, 0)), Ago(8, 9, 0), "Nora Pell");
    }

    /// <summary>The clinic's round is in its third month: its desk asked, and said yes; Wyn has done the visits, but for one at which the ward was full and one that the clinic did not want.</summary>
    private void Runs(Sent round)
    {
        round.Sees(Ago(110, 12, 40));
        var asked = round.Asks(Ago(109, 17, 5), "Can the washes be done before we open at eight?");
        round.Answers(Ago(108, 8, 20), asked, "Yes, from half past five. We keep a key.");
        var yes = Ago(104, 10, 45);
        var signings = new Signings(
            revisions,
            new AcceptanceStore(database),
            new FrozenRevisions(revisions),
            files,
            pictures,
            // On that day it still held.
            new FirmDay(new Then(yes), new CompanyStore(database)),
            new Then(yes)
        );
        var frozen = signings.Frozen(round.Job, round.Revision)!;
        var statement = frozen.With(revisions.Selected(round.Revision), out _).Statement;
        signings.Accept(
            round.Job,
            frozen,
            new(
                Guid.CreateVersion7(),
                statement.Revision,
                statement.Selection,
                statement.Total,
                Desk,
                "",
                Declares: true
            ),
            Guid.CreateVersion7(),
            round.Link
        );
        var (links, sites) = (new WorkOrderStore(database), new SiteStore(database));
        var order = new WorkOrders(links, revisions, signings, firm, new Then(yes)).Of(round.Job)!.Order;
        var wyn = new CrewLink(Guid.CreateVersion7(), "Wyn", [], yes, null);
        links.Add(round.Job, new(wyn, Token.HashOf(Token.New())));
        var past = RoundVisits
            .Of(sites.Log(round.Job, order), RoundVisits.Planned([]))
            .All.Where(v => v.Day < firm.Today)
            .ToList();
        var (full, unwanted) = (past.Last(v => v.Of.Name == "Monthly"), past.Last(v => v.Of.Name == "Fortnightly"));
        foreach (var (visit, n) in past.Select((v, n) => (v, n)))
        {
            var at = firm.At(visit.Day, new TimeOnly(9, 30));
            var (said, words) =
                visit == full ? (VisitSaid.LeftOut, "the ward was full, nobody could go in")
                : visit == unwanted ? (VisitSaid.LeftOutByThem, "they called it off the evening before")
                : (VisitSaid.Done, "");
            var by = said == VisitSaid.LeftOutByThem ? JobEndpoints.Owner : wyn.For;
            var link = said == VisitSaid.LeftOutByThem ? null : (Guid?)wyn.Id;
            sites.Record(
                round.Job,
                order,
                [
                    new VisitFact(Guid.CreateVersion7(), visit.Id, visit.Of.Id, said, visit.Day, words, at, by)
                    {
                        Link = link,
                    },
                ],
                said != VisitSaid.Done
                    ? []
                    :
                    [
                        .. new[] { "Wyn", "Idris" }.Select(who => new HoursFact(
                            Guid.CreateVersion7(),
                            HoursFor.Work,
                            visit.Of.OnlyWork(order),
                            null,
                            who,
                            visit.Day,
                            // Half of what is allowed each, a quarter of an hour more or less, and never none.
                            Math.Max(0.25m, decimal.Round(visit.Of.Hours * 2) / 4 + (n % 3 - 1) * 0.25m),
                            "",
                            at,
                            wyn.For
                        )
                        {
                            Link = link,
                            Visit = visit.Id,
                        }),
                    ],
                firm.Today
            );
        }
    }

    private DateOnly Day(DateTime at) => firm.Days()(at);

    /// <summary>A revision that was sent, and what its customer does.</summary>
    private sealed record Sent(DemoProposals Demo, Guid Job, Guid Revision, Link Link)
    {
        public Fact By(FactKind kind, DateTime at, string words) =>
            new(Guid.CreateVersion7(), Revision, kind, at, Link.For, words) { Link = Link.Id };

        /// <summary>Looks, by the link that came with it.</summary>
        public void Sees(DateTime at) => Demo.revisions.Record(Job, By(FactKind.Seen, at, ""), Demo.Day(at));

        /// <summary>Asks; the id of the question.</summary>
        public Guid Asks(DateTime at, string words)
        {
            var question = By(FactKind.Asked, at, words);
            Demo.revisions.Record(Job, question, Demo.Day(at));
            return question.Id;
        }

        /// <summary>The firm answers a question.</summary>
        public void Answers(DateTime at, Guid question, string words) =>
            Demo.revisions.Record(
                Job,
                new(Guid.CreateVersion7(), Revision, FactKind.Answered, at, JobEndpoints.Owner, words)
                {
                    About = question,
                },
                Demo.Day(at)
            );
    }

    /// <summary>A clock that stands at a moment.</summary>
    private sealed class Then(DateTime at) : TimeProvider
    {
        public override DateTimeOffset GetUtcNow() => new(at, TimeSpan.Zero);
    }
}
