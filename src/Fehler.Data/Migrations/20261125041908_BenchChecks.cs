using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fehler.Data.Migrations
{
    /// <inheritdoc />
    public partial class BenchChecks : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "BenchChecks",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    CircuitId = table.Column<Guid>(type: "TEXT", nullable: false),
                    CircuitVersionId = table.Column<Guid>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Who = table.Column<string>(type: "TEXT", nullable: false),
                    Passed = table.Column<int>(type: "INTEGER", nullable: false),
                    Failed = table.Column<int>(type: "INTEGER", nullable: false),
                    Json = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BenchChecks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BenchChecks_CircuitVersions_CircuitVersionId",
                        column: x => x.CircuitVersionId,
                        principalTable: "CircuitVersions",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_BenchChecks_Circuits_CircuitId",
                        column: x => x.CircuitId,
                        principalTable: "Circuits",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_BenchChecks_CircuitId_At",
                table: "BenchChecks",
                columns: new[] { "CircuitId", "At" });

            migrationBuilder.CreateIndex(
                name: "IX_BenchChecks_CircuitVersionId",
                table: "BenchChecks",
                column: "CircuitVersionId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "BenchChecks");
        }
    }
}
