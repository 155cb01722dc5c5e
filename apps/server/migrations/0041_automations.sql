CREATE TABLE "automation_runs" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"automation_id" uuid NOT NULL,
	"list_id" uuid NOT NULL,
	"start" text NOT NULL,
	"batch_id" uuid,
	"steps" jsonb NOT NULL,
	"state" text DEFAULT 'running' NOT NULL,
	"job_id" uuid,
	"edition_id" uuid,
	"done" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"started_by" text NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"finished_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "automations" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"list_id" uuid NOT NULL,
	"start" text NOT NULL,
	"hour" integer NOT NULL,
	"steps" jsonb NOT NULL,
	"is_on" boolean DEFAULT true NOT NULL,
	"last_day" text,
	"made_by" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "automation_runs" ADD CONSTRAINT "automation_runs_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "automations" ADD CONSTRAINT "automations_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "automation_runs_list" ON "automation_runs" USING btree ("list_id","started_at");--> statement-breakpoint
CREATE INDEX "automation_runs_state" ON "automation_runs" USING btree ("state");--> statement-breakpoint
CREATE INDEX "automations_list" ON "automations" USING btree ("list_id");