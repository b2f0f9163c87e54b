using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Families;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Desk;
using Fehler.Web.Diagnosis;

namespace Fehler.Web.Tests;

/// <summary>What is kept of a job's diagnosis between two questions.</summary>
public class DeskSessionTests
{
    /// <summary>Whoever tidies up asks every session for its size, those that are working among them: fifty people at once showed it.</summary>
    [Fact]
    public async Task How_much_a_session_takes_can_be_asked_while_it_works()
    {
        var compiled = new DirectOnLine { Tag = "T-1", Title = "Test" }
            .Build()
            .Compile();
        var session = new DeskSession(compiled);
        session.Bytes.ShouldBe(0);
        ImmutableArray<Step> press = [new("S2", "pressed")];
        var state = JobState
            .Of(compiled, [new Complaint("dead"), new LiveWorkAcknowledged()])
            .With(new OperationSeen(press, ImmutableSortedDictionary<string, string>.Empty.Add("KM1", "out").Add("M1", "stopped")));
        var working = Task.Run(
            () =>
            {
                for (var i = 0; i < 5; i++)
                {
                    session.Diagnose(state, DiagnosisWish.Usual, History.None, CancellationToken.None);
                    session.Rest();
                }

                return session.Diagnose(state, DiagnosisWish.Usual, History.None, CancellationToken.None);
            },
            Host.Cancellation
        );
        while (!working.IsCompleted)
        {
            session.Bytes.ShouldBeGreaterThanOrEqualTo(0);
        }

        (await working).Proposals.ShouldNotBeEmpty();
        var held = session.Bytes;
        held.ShouldBeGreaterThan(0);
        session.Rest();
        session.Bytes.ShouldBeLessThan(held);
        session.Forget();
        session.Bytes.ShouldBe(0);
    }
}
