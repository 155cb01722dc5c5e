CREATE TABLE "value_choices" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "value_choices_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"contact_id" bigint NOT NULL,
	"part" text NOT NULL,
	"decision_id" bigint NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "value_choices" ADD CONSTRAINT "value_choices_decision_id_pair_decisions_id_fk" FOREIGN KEY ("decision_id") REFERENCES "public"."pair_decisions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "value_choices_contact" ON "value_choices" USING btree ("contact_id");--> statement-breakpoint
CREATE INDEX "value_choices_decision" ON "value_choices" USING btree ("decision_id");