using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Bench;

/// <summary>What is heard at a simulated panel, in words: who practises has no ears there.</summary>
public static class PanelSounds
{
    /// <summary>What the last thing done sounded like; empty when it was no operation, or nothing was heard.</summary>
    public static string Last(JobState job)
    {
        if (job.Entries.LastOrDefault() is not OperationSeen now)
        {
            return "";
        }

        var before = job.Entries.SkipLast(1).OfType<OperationSeen>().LastOrDefault();
        var heard =
            from seen in now.Seen
            let device = job.Circuit.FindDevice(seen.Key)
            where device is not null
            let sound = device.Kind.Heard(
                before?.Seen.GetValueOrDefault(seen.Key) ?? device.Kind.Appearances.FirstOrDefault(""),
                seen.Value
            )
            where sound.Length > 0
            select $"{seen.Key} {sound}";
        return string.Join("; ", heard) is { Length: > 0 } all ? $"Heard: {all}." : "Nothing is heard.";
    }
}
