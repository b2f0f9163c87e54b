using System.Diagnostics.Metrics;

namespace Fehler.Web.Service;

/// <summary>Figures of the service's own for a collector.</summary>
internal sealed class Figures : IDisposable
{
    /// <summary>Name of the meter.</summary>
    public const string Meter = "Fehler";

    private readonly Meter _meter;
    private readonly Histogram<double> _diagnosis;
    private readonly Counter<long> _entries;

    public Figures(IMeterFactory factory)
    {
        _meter = factory.Create(Meter);
        _diagnosis = _meter.CreateHistogram<double>("fehler.diagnosis.duration", "s", "Time to work a diagnosis out");
        _entries = _meter.CreateCounter<long>("fehler.journal.entries", description: "Entries that were recorded");
    }

    /// <summary>A diagnosis was worked out.</summary>
    public void Diagnosed(TimeSpan took) => _diagnosis.Record(took.TotalSeconds);

    /// <summary>An entry was recorded.</summary>
    public void Recorded() => _entries.Add(1);

    public void Dispose() => _meter.Dispose();
}
