using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What was last seen of each device otherwise than a hypothesis foretold. What is seen on and on has one cause, however often it is written down:
/// after the first time it is hardly news.
/// </summary>
internal sealed class SeenOtherwise
{
    /// <summary>How well it fits to see again what was seen before and is not foretold: a slip of the eye is not made every time.</summary>
    private const double AgainShare = 0.25;

    private readonly Dictionary<string, (string Seen, string Foretold)> _last = [];

    /// <summary>How well what is seen of a device fits what is foretold of it, 0 to 1.</summary>
    public double Fit(string device, string seen, string foretold)
    {
        var fit = Likelihood.OfAppearance(seen, foretold);
        return _last.TryGetValue(device, out var last) && last == (seen, foretold) ? Math.Max(fit, AgainShare) : fit;
    }

    /// <summary>Keeps what is seen otherwise than foretold until that has changed.</summary>
    public void Keep(IEnumerable<KeyValuePair<string, string>> seen, Arrival foretold)
    {
        foreach (var (device, value) in seen)
        {
            var expected = foretold.Appearances.GetValueOrDefault(device, "");
            if (value == expected)
            {
                _last.Remove(device);
            }
            else
            {
                _last[device] = (value, expected);
            }
        }
    }
}
