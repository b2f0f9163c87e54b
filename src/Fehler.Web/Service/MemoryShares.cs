namespace Fehler.Web.Service;

/// <summary>How much memory what is kept may take; what does not fit is worked out again when it is asked for, which takes seconds.</summary>
/// <param name="CircuitBytes">Compiled circuits.</param>
/// <param name="SessionBytes">Diagnoses in progress.</param>
internal sealed record MemoryShares(long CircuitBytes, long SessionBytes)
{
    private const long Megabyte = 1_000_000,
        Least = 160,
        Most = 1500;

    /// <summary>As configured; else a quarter of the machine's memory for circuits and an eighth for diagnoses, within bounds.</summary>
    public static MemoryShares From(IConfiguration configuration)
    {
        var available = GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / Megabyte;
        var circuits = configuration.GetValue("Fehler:CircuitMegabytes", Math.Clamp(available / 4, Least, Most));
        return new MemoryShares(
            circuits * Megabyte,
            configuration.GetValue("Fehler:SessionMegabytes", Math.Clamp(available / 8, Least / 2, Most / 2)) * Megabyte
        );
    }
}
