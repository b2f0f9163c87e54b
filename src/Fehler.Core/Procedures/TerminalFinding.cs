using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Procedures;

/// <summary>A device whose terminals carry no marks any more.</summary>
public enum UnmarkedDevice
{
    /// <summary>A contactor or relay: its armature can be pressed by hand.</summary>
    Contactor,

    /// <summary>An overload relay: it is tripped by its test button.</summary>
    OverloadRelay,
}

/// <summary>What two terminals turned out to be.</summary>
public enum UnmarkedElement
{
    Coil,
    Pole,
    NormallyOpen,
    NormallyClosed,
    Heater,
}

/// <summary>A resistance between two terminals of a device that lies or stands there without its wires.</summary>
/// <param name="A">One terminal: <c>T1</c> is the first from the left of the upper row, <c>B2</c> the second of the lower.</param>
/// <param name="B">The other.</param>
/// <param name="Worked">Armature pressed, relay tripped.</param>
/// <param name="Typed">What the meter showed: ohms, OL or beep.</param>
public sealed record UnmarkedReading(string A, string B, bool Worked, string Typed);

/// <summary>What to measure next.</summary>
public sealed record UnmarkedStep(string A, string B, bool Worked, string Why);

/// <summary>Two terminals that belong together, with the marks that the standard gives them.</summary>
public sealed record UnmarkedFound(string A, string B, UnmarkedElement Element, string MarkA, string MarkB);

/// <summary>
/// Finds out what the terminals of an unmarked device are, by a meter's beep at rest and worked: a winding is the coil, closed at rest and open
/// worked is a break contact, the other way a make contact or a pole, closed in both a heater (common practice). Terminals that lie opposite each
/// other are tried first, at rest before anything is held; what is found is not tried again. Marks as EN 50005 and IEC 60947 give them (from
/// memory): poles 1-2, 3-4, 5-6 in the row of three alike, contacts by place and function 13-14, 21-22, coil A1-A2, overload 95-96, 97-98.
/// </summary>
public sealed class TerminalFinding
{
    /// <summary>Below the first it is a closed contact, up to the second a winding, above that open, ohm (common practice).</summary>
    private const double ClosedOhms = 2,
        WindingOhms = 50_000;
    private const int MostInRow = 12,
        MostReadings = 400;

    private enum Shows
    {
        Open,
        Closed,
        Winding,
    }

    private readonly UnmarkedDevice _device;
    private readonly ImmutableArray<string> _terminals;
    private readonly Dictionary<(string A, string B, bool Worked), Shows> _shown = [];

    /// <param name="device">What it is.</param>
    /// <param name="top">Terminals in the upper row.</param>
    /// <param name="bottom">Terminals in the lower row.</param>
    /// <param name="readings">What was measured so far; of one pair in one state the last counts.</param>
    /// <exception cref="RefusedException">No such terminal, or nothing a meter shows.</exception>
    public TerminalFinding(UnmarkedDevice device, int top, int bottom, IReadOnlyCollection<UnmarkedReading> readings)
    {
        if (top is < 1 or > MostInRow || bottom is < 0 or > MostInRow)
        {
            throw new RefusedException($"Count the terminals of each row: 1 to {MostInRow} above, up to {MostInRow} below.");
        }

        if (readings.Count > MostReadings)
        {
            throw new RefusedException($"That is more than the {MostReadings} readings that any device needs; begin anew.");
        }

        _device = device;
        _terminals = [.. Row('T', top), .. Row('B', bottom)];
        foreach (var reading in readings)
        {
            if (!_terminals.Contains(reading.A) || !_terminals.Contains(reading.B) || reading.A == reading.B)
            {
                throw new RefusedException($"{reading.A} and {reading.B} are not two terminals of it.");
            }

            _shown[Key(reading.A, reading.B, reading.Worked)] = Shown(reading.Typed ?? "");
        }

        Found = [.. Marked(Pairs())];
        Next = Step();
    }

    /// <summary>What is found so far, with its marks.</summary>
    public ImmutableArray<UnmarkedFound> Found { get; }

    /// <summary>What to measure next; null when everything that can be is found.</summary>
    public UnmarkedStep? Next { get; }

    /// <summary>Terminals that belong to nothing found so far.</summary>
    public ImmutableArray<string> Free => [.. _terminals.Where(t => Found.All(f => f.A != t && f.B != t))];

    private static IEnumerable<string> Row(char row, int count) =>
        Enumerable.Range(1, count).Select(i => string.Create(CultureInfo.InvariantCulture, $"{row}{i}"));

    private static Shows Shown(string typed)
    {
        var isBeep = typed.Contains("beep", StringComparison.OrdinalIgnoreCase);
        var value = ReadingText.Parse(typed, isBeep ? Quantity.Continuity : Quantity.Ohms);
        return value.Kind switch
        {
            ReadingKind.OverLimit or ReadingKind.Silent => Shows.Open,
            ReadingKind.Beep => Shows.Closed,
            ReadingKind.Number when value.Number < ClosedOhms => Shows.Closed,
            ReadingKind.Number when value.Number <= WindingOhms => Shows.Winding,
            ReadingKind.Number => Shows.Open,
            _ => throw new RefusedException("Type ohms, OL or beep."),
        };
    }

    private (string, string, bool) Key(string a, string b, bool worked) =>
        _terminals.IndexOf(a) < _terminals.IndexOf(b) ? (a, b, worked) : (b, a, worked);

    private Shows? Of(string a, string b, bool worked) => _shown.TryGetValue(Key(a, b, worked), out var shown) ? shown : null;

    /// <summary>What a pair is by its two readings; null while that is open or when it is nothing.</summary>
    private UnmarkedElement? Element(string a, string b) =>
        (Of(a, b, false), Of(a, b, true)) switch
        {
            (Shows.Winding, _) when _device == UnmarkedDevice.Contactor => UnmarkedElement.Coil,
            (Shows.Closed, Shows.Open) => UnmarkedElement.NormallyClosed,
            (Shows.Open, Shows.Closed) => UnmarkedElement.NormallyOpen,
            (Shows.Closed, Shows.Closed) when _device == UnmarkedDevice.OverloadRelay => UnmarkedElement.Heater,
            _ => null,
        };

    /// <summary>Every pair of terminals: those opposite each other first, then the nearest.</summary>
    private IEnumerable<(string A, string B)> Candidates() =>
        from a in _terminals
        from b in _terminals
        where _terminals.IndexOf(a) < _terminals.IndexOf(b)
        orderby Distance(a, b), Place(a), a
        select (a, b);

    private static int Place(string terminal) => int.Parse(terminal.AsSpan(1), NumberStyles.None, CultureInfo.InvariantCulture);

    private static int Distance(string a, string b) => 2 * Math.Abs(Place(a) - Place(b)) + (a[0] == b[0] ? 1 : 0);

    private List<(string A, string B, UnmarkedElement Element)> Pairs() =>
        [
            .. Candidates()
                .Select(c => (c.A, c.B, Element: Element(c.A, c.B)))
                .Where(c => c.Element is not null)
                .Select(c => (c.A, c.B, c.Element!.Value)),
        ];

    private UnmarkedStep? Step()
    {
        var free = Free;
        var open = Candidates().Where(c => free.Contains(c.A) && free.Contains(c.B)).ToList();
        // At rest no hand is needed: all that lie opposite each other first, and what beeps there is settled before the rest is tried.
        foreach (var nearest in new[] { true, false })
        {
            var pairs = open.Where(c => !nearest || Distance(c.A, c.B) == 0).ToList();
            if (pairs.Find(c => Of(c.A, c.B, false) is null) is { A: not null } rest)
            {
                return new UnmarkedStep(
                    rest.A,
                    rest.B,
                    false,
                    nearest ? "What lies opposite belongs together most often." : "Not opposite: the nearest next."
                );
            }

            if (pairs.Find(c => Of(c.A, c.B, true) is null && Of(c.A, c.B, false) != Shows.Winding) is { A: not null } worked)
            {
                return new UnmarkedStep(
                    worked.A,
                    worked.B,
                    true,
                    Of(worked.A, worked.B, false) == Shows.Closed ? "Closed at rest: does it open?" : "Open at rest: does it close?"
                );
            }
        }

        return null;
    }

    private IEnumerable<UnmarkedFound> Marked(List<(string A, string B, UnmarkedElement Element)> pairs)
    {
        var closing = pairs.Where(p => p.Element == UnmarkedElement.NormallyOpen).OrderBy(p => Place(p.A)).ToList();
        // Three alike side by side are the poles; a relay has none.
        var poles = _device == UnmarkedDevice.Contactor && closing.Count >= 3 ? SideBySide(closing) : [];
        var (pole, place, heater) = (0, 1, 0);
        foreach (var (a, b, element) in pairs.OrderBy(p => Place(p.A)).ThenBy(p => p.A, StringComparer.Ordinal))
        {
            var isPole = poles.Contains((a, b, element));
            var (first, second) = (element, isPole, _device) switch
            {
                (UnmarkedElement.Coil, _, _) => ("A1", "A2"),
                (UnmarkedElement.Heater, _, _) => Odd(heater++),
                (_, true, _) => Odd(pole++),
                (UnmarkedElement.NormallyClosed, _, UnmarkedDevice.OverloadRelay) => ("95", "96"),
                (_, _, UnmarkedDevice.OverloadRelay) => ("97", "98"),
                (UnmarkedElement.NormallyClosed, _, _) => ($"{place}1", $"{place++}2"),
                _ => ($"{place}3", $"{place++}4"),
            };
            yield return new UnmarkedFound(a, b, isPole ? UnmarkedElement.Pole : element, first, second);
        }

        static (string, string) Odd(int i) => ($"{2 * i + 1}", $"{2 * i + 2}");
    }

    /// <summary>The first three that follow each other without a gap; the first three where none do.</summary>
    private static List<(string A, string B, UnmarkedElement Element)> SideBySide(
        List<(string A, string B, UnmarkedElement Element)> closing
    )
    {
        for (var i = 0; i + 2 < closing.Count; i++)
        {
            if (Place(closing[i + 2].A) - Place(closing[i].A) == 2)
            {
                return closing.GetRange(i, 3);
            }
        }

        return closing.GetRange(0, 3);
    }
}
