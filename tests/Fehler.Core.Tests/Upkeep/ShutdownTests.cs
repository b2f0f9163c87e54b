using Fehler.Core.Upkeep;

namespace Fehler.Core.Tests.Upkeep;

/// <summary>Packing a window, against trying every choice.</summary>
public class ShutdownTests
{
    private static ShutdownPiece Piece(string id, string circuit, double minutes, double worth, bool isDead, string enclosure = "E1") =>
        new(id, circuit, enclosure, "Q1", id, isDead ? UpkeepState.Dead : UpkeepState.Live, minutes, worth, 6);

    private static ShutdownPiece[] Random(int seed, int count)
    {
        var random = new Random(seed);
        return
        [
            .. Enumerable
                .Range(0, count)
                .Select(i => Piece($"p{i}", $"C{random.Next(4)}", 2 + random.Next(25), 0.2 + random.NextDouble(), random.Next(2) == 0)),
        ];
    }

    /// <summary>What a choice takes, by the rule in words: work, the way there, and for dead work isolating, switching on and the test.</summary>
    private static double Minutes(IEnumerable<ShutdownPiece> chosen) =>
        chosen.GroupBy(p => p.Circuit).Sum(g => g.Sum(p => p.Minutes) + 3 + (g.Any(p => p.State == UpkeepState.Dead) ? 8 + 4 + 6 : 0));

    [Fact]
    public void Comes_near_the_best_choice_and_never_passes_its_bound()
    {
        var shares = new List<double>();
        for (var seed = 1; seed <= 40; seed++)
        {
            var pieces = Random(seed, 11);
            var window = 60 + 5.0 * (seed % 9);
            var list = ShutdownList.Pack(pieces, window, 1);
            var best = Enumerable
                .Range(0, 1 << pieces.Length)
                .Select(mask => pieces.Where((_, i) => (mask >> i & 1) == 1).ToList())
                .Where(chosen => Minutes(chosen) <= window)
                .Max(chosen => chosen.Sum(p => p.Worth));
            list.Worth.ShouldBeLessThanOrEqualTo(best + 1e-9);
            list.Bound.ShouldBeGreaterThanOrEqualTo(best - 1e-9);
            shares.Add(list.Worth / best);
        }

        shares.Average().ShouldBeGreaterThan(0.93);
        shares.Min().ShouldBeGreaterThan(0.75);
    }

    [Fact]
    public void Nobody_works_longer_than_the_window_and_nothing_is_lost()
    {
        var pieces = Random(7, 40);
        var list = ShutdownList.Pack(pieces, 90, 3);
        list.People.ShouldAllBe(p => p.Minutes <= 90);
        var done = list.People.SelectMany(p => p.Visits).SelectMany(v => v.Dead.Concat(v.Live)).ToList();
        done.Concat(list.LeftOut.Select(l => l.Piece)).OrderBy(p => p.Id).ShouldBe(pieces.OrderBy(p => p.Id));
        list.LeftOut.ShouldAllBe(l => l.Why.Length > 0);
        list.People.SelectMany(p => p.Visits).GroupBy(v => v.Circuit).ShouldAllBe(g => g.Count() == 1);
    }

    [Fact]
    public void Dead_work_of_one_circuit_is_isolated_for_once()
    {
        var list = ShutdownList.Pack([Piece("screws", "A", 20, 1, true), Piece("insulation", "A", 12, 1, true)], 120, 1);
        var visit = list.People.Single().Visits.Single();
        visit.Minutes.ShouldBe(20 + 12 + 3 + 8 + 4 + 6);
        list.Worth.ShouldBe(list.Bound, 1e-9);
    }

    [Fact]
    public void Circuits_of_one_enclosure_go_to_one_person_where_they_fit()
    {
        ShutdownPiece[] pieces =
        [
            .. new[] { "A", "B", "C" }.Select(c => Piece($"{c}1", c, 10, 1, true, "North")),
            .. new[] { "D", "E", "F" }.Select(c => Piece($"{c}1", c, 10, 1, true, "South")),
        ];
        var list = ShutdownList.Pack(pieces, 120, 2);
        list.LeftOut.ShouldBeEmpty();
        list.People.ShouldAllBe(p => p.Visits.Select(v => v.Enclosure).Distinct().Count() == 1);
    }
}
