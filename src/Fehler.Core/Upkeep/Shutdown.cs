using System.Collections.Immutable;

namespace Fehler.Core.Upkeep;

/// <summary>A piece of work that may go into a shutdown.</summary>
/// <param name="Id">Stable name of the piece.</param>
/// <param name="Circuit">Designation of the circuit.</param>
/// <param name="Enclosure">Where its panel is.</param>
/// <param name="Isolation">The points that are opened for dead work, in words.</param>
/// <param name="Title">What is done.</param>
/// <param name="State">On the dead or on the live circuit.</param>
/// <param name="Minutes">What it takes, isolating and testing not counted.</param>
/// <param name="Worth">How much it is worth to have it done.</param>
/// <param name="TestMinutes">What the function test of its circuit takes.</param>
public sealed record ShutdownPiece(
    string Id,
    string Circuit,
    string Enclosure,
    string Isolation,
    string Title,
    UpkeepState State,
    double Minutes,
    double Worth,
    double TestMinutes
);

/// <summary>What is done at one circuit, by one person, without a break: isolate, dead work, switch on, live work, function test.</summary>
/// <param name="StartMinute">From the beginning of the window.</param>
public sealed record ShutdownVisit(
    string Circuit,
    string Enclosure,
    string Isolation,
    ImmutableArray<ShutdownPiece> Dead,
    ImmutableArray<ShutdownPiece> Live,
    double StartMinute,
    double Minutes
);

/// <summary>One person's way through the window.</summary>
public sealed record ShutdownPerson(int Number, ImmutableArray<ShutdownVisit> Visits)
{
    public double Minutes => Visits.Sum(v => v.Minutes);
}

/// <summary>A piece that did not find room, with why.</summary>
public sealed record LeftOut(ShutdownPiece Piece, string Why);

/// <summary>
/// The work that fits into a window. Each circuit costs its isolating and its function test once, however much is done on it. Which pieces
/// are taken is a knapsack with one choice a circuit: of each circuit the sets of its most worthwhile pieces that lie on the concave hull of
/// minutes and worth, taken by falling worth a minute (greedy; after Sinha and Zoltners 1979, multiple-choice knapsack, from memory). The
/// same order with the last step broken off is the bound that no choice passes. The circuits of one enclosure then go to one person where
/// they fit, the longest first.
/// </summary>
/// <param name="People">Who does what.</param>
/// <param name="LeftOut">What did not find room.</param>
/// <param name="Worth">Of what was taken.</param>
/// <param name="Bound">No choice is worth more.</param>
public sealed record ShutdownList(ImmutableArray<ShutdownPerson> People, ImmutableArray<LeftOut> LeftOut, double Worth, double Bound)
{
    /// <summary>Isolating, proving dead and locking; taking locks off and switching on (common practice).</summary>
    public const double IsolateMinutes = 8,
        EnergiseMinutes = 4;

    /// <summary>Walking from one enclosure to another.</summary>
    private const double WayMinutes = 3;

    /// <summary>Packs a window.</summary>
    /// <param name="pieces">What is due, in any order.</param>
    /// <param name="minutes">Length of the window.</param>
    /// <param name="people">Who is there; each works by the rules of the site, never alone on live parts.</param>
    public static ShutdownList Pack(IReadOnlyCollection<ShutdownPiece> pieces, double minutes, int people)
    {
        var (taken, bound) = Chosen(pieces, minutes * people);
        var (plan, dropped) = Assigned(taken, minutes, people);
        var done = plan.SelectMany(p => p.Visits).SelectMany(v => v.Dead.Concat(v.Live)).ToList();
        return new ShutdownList(
            plan,
            [
                .. pieces
                    .Except(done)
                    .OrderByDescending(p => p.Worth)
                    .Select(p => new LeftOut(p, dropped.Contains(p) ? "fits into nobody's time" : "no time for it in this window")),
            ],
            done.Sum(p => p.Worth),
            bound
        );
    }

    /// <summary>What a set of pieces takes on one circuit.</summary>
    private static double MinutesOf(IReadOnlyCollection<ShutdownPiece> pieces) =>
        pieces.Count == 0
            ? 0
            : pieces.Sum(p => p.Minutes)
                + WayMinutes
                + (pieces.Any(p => p.State == UpkeepState.Dead) ? IsolateMinutes + EnergiseMinutes + pieces.Max(p => p.TestMinutes) : 0);

    /// <summary>A step on the hull of a circuit: more pieces than before for more minutes.</summary>
    private sealed record HullStep(ImmutableArray<ShutdownPiece> Added, double Minutes, double Worth)
    {
        public double Rate => Worth / Minutes;
    }

    private static (List<ShutdownPiece> Taken, double Bound) Chosen(IReadOnlyCollection<ShutdownPiece> pieces, double capacity)
    {
        var circuits = pieces.GroupBy(p => p.Circuit).Select(g => Sets([.. g])).ToList();
        var (taken, used, closed) = (new List<ShutdownPiece>(), 0.0, new HashSet<string>());
        foreach (var step in circuits.SelectMany(c => Hull(c, isKept: true)).OrderByDescending(s => s.Rate))
        {
            // Steps of one circuit build on each other; after one that did not fit those of other circuits still may.
            if (used + step.Minutes > capacity || closed.Contains(step.Added[0].Circuit))
            {
                closed.Add(step.Added[0].Circuit);
                continue;
            }

            taken.AddRange(step.Added);
            used += step.Minutes;
        }

        var (bound, room) = (0.0, capacity);
        foreach (var step in circuits.SelectMany(c => Hull(c, isKept: false)).OrderByDescending(s => s.Rate))
        {
            bound += step.Worth * Math.Min(1, room / step.Minutes);
            room = Math.Max(0, room - step.Minutes);
        }

        return (taken, bound);
    }

    private sealed record PieceSet(ImmutableArray<ShutdownPiece> Pieces, double Minutes, double Worth);

    /// <summary>
    /// The sets of one circuit's pieces that may be worth choosing: so many of the live and so many of the dead ones, each by worth a
    /// minute, since the first dead one brings the isolating with it.
    /// </summary>
    private static List<PieceSet> Sets(ImmutableArray<ShutdownPiece> pieces)
    {
        var sorted = pieces.OrderByDescending(p => p.Worth / p.Minutes).ToList();
        List<ShutdownPiece> live = [.. sorted.Where(p => p.State == UpkeepState.Live)],
            dead = [.. sorted.Where(p => p.State == UpkeepState.Dead)];
        return
        [
            .. from l in Enumerable.Range(0, live.Count + 1)
            from d in Enumerable.Range(0, dead.Count + 1)
            where l + d > 0
            let set = live.Take(l).Concat(dead.Take(d)).ToImmutableArray()
            select new PieceSet(set, MinutesOf(set), set.Sum(p => p.Worth)),
        ];
    }

    /// <summary>The sets on the concave hull of minutes and worth, as steps of falling rate.</summary>
    /// <param name="sets">Sets of one circuit's pieces.</param>
    /// <param name="isKept">Each next set has to hold the one before, so that steps can be taken one by one.</param>
    private static IEnumerable<HullStep> Hull(List<PieceSet> sets, bool isKept)
    {
        var at = new PieceSet([], 0, 0);
        while (true)
        {
            // The next corner of the hull: the steepest way on.
            var next = sets.Where(s => s.Worth > at.Worth && s.Minutes > at.Minutes && (!isKept || at.Pieces.All(s.Pieces.Contains)))
                .OrderByDescending(s => (s.Worth - at.Worth) / (s.Minutes - at.Minutes))
                .ThenByDescending(s => s.Worth)
                .FirstOrDefault();
            if (next is null)
            {
                yield break;
            }

            yield return new HullStep([.. next.Pieces.Except(at.Pieces)], next.Minutes - at.Minutes, next.Worth - at.Worth);
            at = next;
        }
    }

    private static (ImmutableArray<ShutdownPerson> People, HashSet<ShutdownPiece> Dropped) Assigned(
        List<ShutdownPiece> taken,
        double minutes,
        int people
    )
    {
        var left = Enumerable.Repeat(minutes, people).ToArray();
        var visits = Enumerable.Range(0, people).Select(_ => new List<List<ShutdownPiece>>()).ToArray();
        var dropped = new HashSet<ShutdownPiece>();
        var enclosures = taken
            .GroupBy(p => p.Enclosure)
            .Select(g => g.GroupBy(p => p.Circuit).Select(c => c.ToList()).OrderByDescending(MinutesOf).ToList())
            .OrderByDescending(e => e.Sum(MinutesOf));
        foreach (var enclosure in enclosures)
        {
            var whole = Array.FindIndex(left, l => l >= enclosure.Sum(MinutesOf) && l >= left.Max());
            foreach (var circuit in enclosure)
            {
                var pieces = circuit.OrderByDescending(p => p.Worth / p.Minutes).ToList();
                var person = whole >= 0 ? whole : Array.IndexOf(left, left.Max());
                while (pieces.Count > 0 && MinutesOf(pieces) > left[person])
                {
                    dropped.Add(pieces[^1]);
                    pieces.RemoveAt(pieces.Count - 1);
                }

                if (pieces.Count > 0)
                {
                    left[person] -= MinutesOf(pieces);
                    visits[person].Add(pieces);
                }
            }
        }

        return ([.. visits.Select((v, i) => new ShutdownPerson(i + 1, [.. InOrder(v)]))], dropped);
    }

    /// <summary>Enclosure by enclosure, in each by isolation point.</summary>
    private static IEnumerable<ShutdownVisit> InOrder(List<List<ShutdownPiece>> circuits)
    {
        var clock = 0.0;
        foreach (
            var pieces in circuits
                .OrderBy(c => c[0].Enclosure, StringComparer.Ordinal)
                .ThenBy(c => c[0].Isolation, StringComparer.Ordinal)
                .ThenBy(c => c[0].Circuit, StringComparer.Ordinal)
        )
        {
            var visit = new ShutdownVisit(
                pieces[0].Circuit,
                pieces[0].Enclosure,
                pieces[0].Isolation,
                [.. pieces.Where(p => p.State == UpkeepState.Dead)],
                [.. pieces.Where(p => p.State == UpkeepState.Live)],
                clock,
                MinutesOf(pieces)
            );
            clock += visit.Minutes;
            yield return visit;
        }
    }
}
