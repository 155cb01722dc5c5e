CREATE TABLE "pair_decisions" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "pair_decisions_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"list_id" uuid NOT NULL,
	"decision" text NOT NULL,
	"pairs" integer NOT NULL,
	"who" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"undone_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "pair_states" (
	"list_id" uuid PRIMARY KEY NOT NULL,
	"ran_at" timestamp with time zone DEFAULT now() NOT NULL,
	"contacts" integer NOT NULL,
	"thresholds" jsonb NOT NULL,
	"bins" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pairs" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "pairs_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"list_id" uuid NOT NULL,
	"a_id" bigint NOT NULL,
	"b_id" bigint NOT NULL,
	"score" real NOT NULL,
	"key" text NOT NULL,
	"evidence" jsonb NOT NULL,
	"against" real NOT NULL,
	"pattern" text NOT NULL,
	"decision_id" bigint,
	"join_id" bigint
);
--> statement-breakpoint
ALTER TABLE "pair_decisions" ADD CONSTRAINT "pair_decisions_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pairs" ADD CONSTRAINT "pairs_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pairs" ADD CONSTRAINT "pairs_decision_id_pair_decisions_id_fk" FOREIGN KEY ("decision_id") REFERENCES "public"."pair_decisions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pair_decisions_list" ON "pair_decisions" USING btree ("list_id","made_at");--> statement-breakpoint
CREATE UNIQUE INDEX "pairs_once" ON "pairs" USING btree ("list_id","a_id","b_id");--> statement-breakpoint
CREATE INDEX "pairs_waiting" ON "pairs" USING btree ("list_id","score" DESC NULLS LAST,"id") WHERE decision_id is null;--> statement-breakpoint
CREATE INDEX "pairs_pattern" ON "pairs" USING btree ("list_id","pattern") WHERE decision_id is null;--> statement-breakpoint
CREATE INDEX "pairs_decision" ON "pairs" USING btree ("decision_id");