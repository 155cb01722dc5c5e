CREATE INDEX "pairs_b" ON "pairs" USING btree ("b_id") WHERE decision_id is null;--> statement-breakpoint
CREATE INDEX "pairs_a" ON "pairs" USING btree ("a_id") WHERE decision_id is null;